<script lang="ts">
  import { tinykeys } from 'tinykeys'
  import BanksDialog from '../banks/BanksDialog.svelte'
  import BankStrip from '../banks/BankStrip.svelte'
  import Path from '../drawing/Path.svelte'
  import { stationOf, stations } from '../stations'
  import { bench } from '../stations/bank/bench.svelte'
  import { rundown } from '../stations/bank/rundown.svelte'
  import { dark } from '../stations/cables/dark.svelte'
  import { hand } from '../stations/cables/hand.svelte'
  import { ac } from '../stations/inverter/ac.svelte'
  import { protection } from '../stations/cables/protection.svelte'
  import { fetchOthers, pageOf } from '../stations/pages'
  import Findings from '../ui/Findings.svelte'
  import Working from '../ui/Working.svelte'
  import Conflict from './Conflict.svelte'
  import { guessing } from './guessing.svelte'
  import { keeper } from './keeper.svelte'
  import { help } from './help.svelte'
  import { memory } from './memory.svelte'
  import { route } from './route.svelte'
  import { session } from './session.svelte'
  import { undoKeys } from './undoKeys'
  import TitleLine from './TitleLine.svelte'

  const parts = $derived(pageOf(session.station))
  // The others come at once behind the first, so that the bench is whole should the server go away.
  let whole = $state(false)
  $effect(() => {
    if (parts && !whole) void fetchOthers().then((all) => (whole = all))
  })
  // What is open on the station is what the sentence is about.
  const sentence = $derived(
    (session.station === 'inverter' && ac.look === 'ac' && session.design!.acSide.parts.length > 0
      ? ac.answer?.headline
      : null) ??
      (session.station === 'cables' && hand.look === 'dark' ? dark.answer?.headline : null) ??
      (session.station === 'cables' && hand.look === 'protection' && protection.answer?.run === hand.id
        ? protection.answer.headline
        : null) ??
      (session.station === 'cables' ? hand.view?.circuit?.headline : null) ??
      (session.station === 'bank' && bench.view === 'rundown' ? rundown.answer?.run.headline : null) ??
      (session.station === 'bank' && bench.view === 'stands' ? session.result?.stands?.headline : null) ??
      session.result?.headlines[session.station] ??
      session.evaluation?.firstToDo ??
      '',
  )
  const headline = $derived(guessing.mask(sentence))

  /** What is found about the place, while the place is looked at. */
  const inTime = $derived(session.station === 'cables' && hand.look === 'protection')
  const first = $derived(
    session.station === 'bank' && bench.view === 'stands'
      ? 'place.'
      : session.station === 'cables' && hand.look === 'dark'
        ? 'dark.'
        : session.station === 'inverter' && ac.look === 'ac'
          ? 'ac.'
          : inTime && hand.view
            ? hand.view.main
              ? '/runs'
              : hand.view.ptr.replace(/\/run$/, '')
            : '',
  )

  /** Where the first thing that is missing is put in. */
  const needed = $derived(stationOf(session.result?.loads ? 'bank' : 'loads'))

  const FOLD = 'inky-badger.folded'
  let height = $state(800)
  let width = $state(1280)
  const findingsFirst = $derived(width < 940 && stationOf(session.station).findingsFirst === true)
  let chosen = $state(memory.read(FOLD))
  const folded = $derived(chosen === null ? height < 560 : chosen === 'yes')
  const WORKING = 'inky-badger.working'
  let workingFolded = $state(memory.read(WORKING) === 'folded')

  // A sentence that changes with every key would be read out with every key.
  let spoken = $state('')
  $effect(() => {
    const sentence = headline
    const timer = setTimeout(() => (spoken = sentence), 500)
    return () => clearTimeout(timer)
  })

  $effect(() => {
    const free = (action: () => void) => (e: KeyboardEvent) => {
      const target = e.target as HTMLElement
      if (target.closest('input, select, textarea, dialog')) return
      e.preventDefault()
      action()
    }
    const keys: Record<string, (e: KeyboardEvent) => void> = {
      f: free(() => {
        chosen = folded ? 'no' : 'yes'
        memory.write(FOLD, chosen)
      }),
      w: free(() => {
        workingFolded = !workingFolded
        memory.write(WORKING, workingFolded ? 'folded' : 'open')
      }),
      'Shift+?': free(() => (help.open = true)),
    }
    for (const s of stations) keys[String(s.number)] = free(() => route.toStation(session.id!, s.id))
    return tinykeys(window, undoKeys(keys))
  })
</script>

<svelte:window bind:innerHeight={height} bind:innerWidth={width} />

<div class="bench" data-whole={whole || undefined}>
  <TitleLine />
  {#if session.design!.banks.length > 1}<BankStrip phone={width < 940} />{/if}
  <Path {folded} short={height < 740} />
  <main class="sheet">
    <div class="instrument">
      <h1
        class={[
          'headline',
          (session.station === 'bank' || session.station === 'cables' || session.station === 'inverter') && 'beside',
        ]}
        data-testid="headline"
      >
        {headline}
      </h1>
      <div class="sr-only" aria-live="polite">{spoken}</div>
      {#if session.failure}<p class="note" role="alert">{session.failure}</p>{/if}
      {#if session.evaluation?.firstToDo && session.station !== needed.id && session.mark(session.station) === 'none'}
        <p class="missing" data-testid="missing">
          What this follows from is missing.
          <a class="link-copper" href="#/d/{session.id}/{needed.id}"
            >{session.evaluation.firstToDo}, at {needed.number} {needed.name} ›</a
          >
        </p>
      {/if}
      {#if findingsFirst}<div class="first"><Findings station={session.station} {first} only={inTime} /></div>{/if}
      {#if parts}<parts.Page />{:else}<p class="note" aria-busy="true">One moment…</p>{/if}
    </div>
    <div class="notes">
      {#if parts?.Above}<parts.Above />{/if}
      {#if !findingsFirst}<Findings station={session.station} {first} only={inTime} />{/if}
      {#if parts?.Below}<parts.Below />{/if}
    </div>
  </main>
  {#if workingFolded}
    <button type="button" class="unfold caption" onclick={() => (workingFolded = false)}>Working (w)</button>
  {:else}
    <Working />
  {/if}
</div>
<BanksDialog />
{#if keeper.conflict}<Conflict />{/if}

<style>
  .bench {
    display: flex;
    flex-direction: column;
    height: 100dvh;
  }
  .bench > :global(*) {
    flex: none;
  }
  .bench > .sheet {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 272px;
    margin: 0 16px;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    border-top: 0;
    min-height: 0;
    overflow: hidden;
  }
  .instrument {
    padding: 10px 16px 6px;
    overflow: auto;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  .instrument > :global(*) {
    flex-shrink: 0;
  }
  /* The views of the bank stand at the right of its sentence. */
  @media (min-width: 1150px) {
    .beside {
      max-width: calc(100% - 370px);
    }
  }
  .first {
    margin: 8px 0;
  }
  .missing {
    margin-top: 8px;
    padding: 6px 10px;
    border: 1px dashed var(--ink-3);
  }
  .unfold {
    padding: 4px 16px;
    text-align: left;
    cursor: pointer;
  }
  .notes {
    position: relative;
    padding: 14px 14px 22px;
    /* No line is cut through: what goes on below fades. */
    mask-image: linear-gradient(to bottom, #000 calc(100% - 22px), transparent);
    border-left: 1px solid var(--hair);
    overflow: auto;
    margin: 12px 0;
    padding-top: 0;
  }
  @media (max-width: 939px) {
    .bench {
      height: auto;
      min-height: 100dvh;
    }
    .bench > .sheet {
      grid-template-columns: minmax(0, 1fr);
      margin: 0;
      border-inline: 0;
      overflow: visible;
    }
    .instrument {
      padding: 12px;
    }
    .notes {
      mask-image: none;
      border-left: 0;
      border-top: 1px solid var(--hair);
      padding-top: 12px;
    }
  }
</style>
