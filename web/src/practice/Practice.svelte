<script lang="ts">
  import { untrack } from 'svelte'
  import { tinykeys } from 'tinykeys'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { route } from '../app/route.svelte'
  import { session } from '../app/session.svelte'
  import TitleLine from '../app/TitleLine.svelte'
  import { undoKeys } from '../app/undoKeys'
  import Views from '../ui/Views.svelte'
  import Working from '../ui/Working.svelte'
  import FindView from './FindView.svelte'
  import GuessView from './GuessView.svelte'
  import { practice } from './practice.svelte'
  import WalkView from './WalkView.svelte'
  import WordsView from './WordsView.svelte'

  /** Learning to see it: what somebody else built, figures by head, a walk with the meter, the words of the job. */
  const all = [
    ['find', 'find what is wrong'],
    ['guess', 'guess first'],
    ['walk', 'the meter walk'],
    ['words', 'the words'],
  ] as const
  type View = (typeof all)[number][0]
  const view = $derived<View>(all.find(([id]) => id === route.practising?.view)?.[0] ?? 'find')

  $effect(() => {
    untrack(() => session.release())
    return () => untrack(() => session.release())
  })
  $effect(() => {
    void view
    untrack(() => {
      session.release()
      if (view === 'find') void practice.begin()
    })
  })
  $effect(() => tinykeys(window, undoKeys()))
</script>

<svelte:head><title>Practice, {session.evaluation!.name}</title></svelte:head>
<div class="place">
  <TitleLine covered={view === 'find'} />
  {#snippet views()}
    <Views
      name="Ways to practise"
      views={all}
      value={view}
      below
      onpick={(v) => route.go(`#/d/${session.id}/practice/${v}`)}
    />
  {/snippet}
  {#if view === 'find'}<FindView {views} />{:else if view === 'guess'}<GuessView
      {views}
    />{:else if view === 'walk'}<WalkView {views} />{:else}<WordsView {views} />{/if}
  {#if session.equation}<div class="band"><Working told={view === 'find'} /></div>{/if}
</div>
{#if keeper.conflict}<Conflict />{/if}

<style>
  .place {
    display: flex;
    flex-direction: column;
    height: 100dvh;
  }
  .place :global(.practice-sheet) {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 280px;
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .place :global(.practice-sheet > *) {
    padding: 10px 14px;
    min-height: 0;
    min-width: 0;
    overflow: auto;
  }
  .place :global(.practice-sheet > .side) {
    border-left: 1px solid var(--hair);
  }
  @media (max-width: 939px) {
    .place {
      height: auto;
      min-height: 100dvh;
    }
    .place :global(.practice-sheet) {
      display: block;
      margin: 0;
      border-inline: 0;
      flex: none;
    }
    .place :global(.practice-sheet > *) {
      overflow: visible;
    }
    .place :global(.practice-sheet > .side) {
      border-left: 0;
      border-top: 1px solid var(--hair);
    }
  }
</style>
