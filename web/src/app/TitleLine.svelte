<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon'
  import Redo from '@lucide/svelte/icons/redo-2'
  import Undo from '@lucide/svelte/icons/undo-2'
  import Sun from '@lucide/svelte/icons/sun'
  import Mark from '../ui/Mark.svelte'
  import { keeper } from './keeper.svelte'
  import { route } from './route.svelte'
  import { stations } from '../stations'
  import { session } from './session.svelte'
  import { theme } from './theme.svelte'
  import Badger from './Badger.svelte'
  import Unkept from './Unkept.svelte'

  const counts = $derived(session.evaluation!.counts)
  const next = $derived(stations[(stations.findIndex((s) => s.id === session.station) + 1) % stations.length])
  const wrong = $derived(`${counts.wrong} wrong`)

  function rename(e: Event) {
    const input = e.currentTarget as HTMLInputElement
    const name = [...input.value.trim()].slice(0, 80).join('')
    if (name === '') input.value = session.design!.name
    else if (name !== session.design!.name) session.edit({ path: '/name', value: name }, true)
  }
</script>

<div>
  <header class="title">
    <a href="#/shelf" class="flex items-center gap-2 whitespace-nowrap" title="To the shelf">
      <Badger />
      <span class="headline text-[17px]!">Inky Badger</span>
    </a>
    <label class="sr-only" for="design-name">Name of the design</label>
    <input
      id="design-name"
      class="name"
      value={session.design!.name}
      maxlength="160"
      onchange={rename}
      onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
    <div class="places" role="group" aria-label="Places">
      <a
        href="#/d/{session.id}/{session.station}"
        class={[!route.builds && 'on']}
        aria-current={route.builds ? undefined : 'page'}>Path</a
      >
      <a href="#/d/{session.id}/builds" class={[route.builds && 'on']} aria-current={route.builds ? 'page' : undefined}
        >Builds</a
      >
    </div>
    {#if session.design!.banks.length > 1}
      <span class="banks" role="group" aria-label="Banks of this design">
        {#each session.design!.banks as bank, i (bank.id)}
          <button
            type="button"
            class={['bank', i === session.bankIndex && 'on']}
            aria-pressed={i === session.bankIndex}
            onclick={() => session.toBank(i)}>{bank.name || bank.id}</button
          >
        {/each}
      </span>
    {/if}
    <span class="caption kept" aria-live="polite" data-testid="kept"
      >{keeper.words}{#if keeper.conflict}&nbsp;<button
          type="button"
          class="link-copper"
          onclick={() => (keeper.asking = true)}>choose</button
        >{:else if keeper.locked}&nbsp;<button type="button" class="link-copper" onclick={() => route.toKey()}
          >give the new key</button
        >{/if}</span
    >
    <span class="counts" data-testid="counts">
      <span class="whitespace-nowrap"><Mark kind="wrong" /> <b>{wrong}</b></span>
      <span class="whitespace-nowrap"><Mark kind="look" /> <b>{counts.toLookAt} to look at</b></span>
    </span>
    <span class="tools">
      <button
        type="button"
        class="btn btn-ghost btn-xs btn-square"
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        disabled={!keeper.canUndo && keeper.waiting === 0}
        onclick={() => session.walk('undo')}><Undo size={15} /></button
      >
      <button
        type="button"
        class="btn btn-ghost btn-xs btn-square"
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        disabled={!keeper.canRedo}
        onclick={() => session.walk('redo')}><Redo size={15} /></button
      >
      <button
        type="button"
        class="btn btn-ghost btn-xs"
        aria-label="{session.units === 'metric' ? 'm, mm²' : 'ft, AWG'}: {session.units} units. Change"
        onclick={() =>
          session.edit({ path: '/display/units', value: session.units === 'metric' ? 'imperial' : 'metric' }, true)}
      >
        {session.units === 'metric' ? 'm, mm²' : 'ft, AWG'}
      </button>
      <button
        type="button"
        class="btn btn-ghost btn-xs btn-square"
        aria-label={theme.night ? 'Light theme' : 'Night theme'}
        onclick={() => theme.toggle()}
      >
        {#if theme.night}<Sun size={15} />{:else}<Moon size={15} />{/if}
      </button>
      <button
        type="button"
        class="next"
        onclick={() => route.toStation(session.id!, next.id)}
        aria-label="Next: {next.name}">next ›</button
      >
    </span>
  </header>
  <Unkept />
</div>

<style>
  .title {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 0 16px;
    height: 38px;
  }
  .name {
    border: 1px solid transparent;
    border-left: 1px solid var(--hair);
    background: none;
    font-size: 14px;
    height: 26px;
    padding: 0 10px;
    min-width: 80px;
    flex: 0 1 320px;
    text-overflow: ellipsis;
  }
  .name:hover,
  .name:focus {
    border-color: var(--ink-3);
  }
  .places {
    display: flex;
    gap: 14px;
    font-size: 13.5px;
  }
  .places a {
    min-height: 26px;
    display: inline-flex;
    align-items: center;
    border-bottom: 2.5px solid transparent;
  }
  .places .on {
    font-weight: 700;
    border-color: var(--ink);
  }
  .banks {
    display: flex;
    gap: 2px;
  }
  .bank {
    padding: 2px 10px;
    min-height: 26px;
    border: 1px solid var(--ink-3);
    font-size: 12.5px;
    cursor: pointer;
    white-space: nowrap;
  }
  .bank.on {
    background: var(--tint);
    border-color: var(--ink);
    font-weight: 700;
  }
  .kept {
    margin-right: auto;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .counts {
    display: flex;
    gap: 14px;
  }
  .tools {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  .next {
    color: var(--copper-text);
    font-weight: 700;
    padding: 4px 8px;
    cursor: pointer;
    white-space: nowrap;
  }
  @media (max-width: 939px) {
    .title {
      flex-wrap: wrap;
      height: auto;
      padding: 6px 12px;
      gap: 4px 10px;
    }
    .name {
      flex: 1 1 100%;
      order: 3;
      border-color: var(--hair);
    }
    .kept {
      order: 4;
    }
    .counts {
      margin-left: auto;
    }
    .tools {
      order: 5;
    }
  }
</style>
