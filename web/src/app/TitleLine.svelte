<script lang="ts">
  import Menu from '@lucide/svelte/icons/menu'
  import Moon from '@lucide/svelte/icons/moon'
  import Redo from '@lucide/svelte/icons/redo-2'
  import Undo from '@lucide/svelte/icons/undo-2'
  import Sun from '@lucide/svelte/icons/sun'
  import X from '@lucide/svelte/icons/x'
  import Mark from '../ui/Mark.svelte'
  import KeysDialog from './KeysDialog.svelte'
  import { keeper } from './keeper.svelte'
  import { route } from './route.svelte'
  import { stations } from '../stations'
  import { session } from './session.svelte'
  import { theme } from './theme.svelte'
  import Badger from './Badger.svelte'
  import { help } from './help.svelte'
  import Unkept from './Unkept.svelte'

  /** The counts say nothing while one looks for what they would tell. */
  let { covered = false }: { covered?: boolean } = $props()
  const counts = $derived(session.evaluation!.counts)
  const name = $derived(session.evaluation!.name)
  const next = $derived(stations[stations.findIndex((s) => s.id === session.station) + 1] ?? null)
  /** On a narrow screen all but the name and the counts is in here. */
  let menu = $state(false)
  const here = $derived(
    route.builds
      ? 'builds'
      : route.rehearse
        ? 'rehearse'
        : route.sheets
          ? 'sheets'
          : route.bringUp
            ? 'bring-up'
            : route.log
              ? 'log'
              : route.findings
                ? 'findings'
                : route.rules
                  ? 'rules'
                  : route.practice
                    ? 'practice'
                    : 'path',
  )
  // Whatever was pressed in it, the menu has done its work.
  $effect(() => {
    void route.hash
    menu = false
  })

  function rename(e: Event) {
    const input = e.currentTarget as HTMLInputElement
    const name = [...input.value.trim()].slice(0, 80).join('')
    // An emptied name goes back to the one made of what is in it.
    if (name !== session.design!.name) session.edit({ path: '/name', value: name }, true)
    else input.value = name
  }
</script>

{#snippet acts()}
  {#if keeper.conflict}&nbsp;<button type="button" class="link-copper" onclick={() => (keeper.asking = true)}
      >choose</button
    >{:else if keeper.locked}&nbsp;<button type="button" class="link-copper" onclick={() => route.toKey()}
      >give the new key</button
    >{/if}
{/snippet}

<div class="line" data-menu={menu ? 'open' : undefined}>
  <header class="title">
    <a href="#/shelf" class="brand" title="Designs">
      <Badger />
      <span class="headline word">Inky Badger</span>
    </a>
    <label class="sr-only" for="design-name">Name of the design</label>
    <input
      id="design-name"
      class="name"
      value={session.design!.name}
      placeholder={name}
      title={session.design!.name || name}
      maxlength="160"
      onchange={rename}
      onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
    {#if session.design!.demo}<span class="demo" title="Made up, to look at and to try on">demo</span>{/if}
    {#if covered}
      <span class="counts" data-testid="covered"><Mark kind="none" /> <b>findings are covered</b></span>
    {:else}
      <a
        class="counts"
        data-testid="counts"
        href="#/d/{session.id}/findings"
        title="All findings"
        aria-current={here === 'findings' ? 'page' : undefined}
      >
        <span><Mark kind="wrong" /> <b>{counts.wrong} wrong</b></span>
        <span><Mark kind="look" /> <b>{counts.toLookAt} to look at</b></span>
      </a>
    {/if}
    <button
      type="button"
      class="more"
      aria-expanded={menu}
      aria-controls="title-menu"
      aria-label="Menu"
      onclick={() => (menu = !menu)}
      >{#if menu}<X size={20} />{:else}<Menu size={20} />{/if}</button
    >
    <div class="rest" id="title-menu">
      <div class="places" role="group" aria-label="Places">
        <a href="#/shelf">Designs</a>
        <a
          href="#/d/{session.id}/{session.station}"
          class={[here === 'path' && 'on']}
          aria-current={here === 'path' ? 'page' : undefined}>Path</a
        >
        <a
          href="#/d/{session.id}/builds"
          class={[here === 'builds' && 'on']}
          aria-current={here === 'builds' ? 'page' : undefined}>Builds</a
        >
        <a
          href="#/d/{session.id}/rehearse"
          class={[here === 'rehearse' && 'on']}
          aria-current={here === 'rehearse' ? 'page' : undefined}>Rehearse</a
        >
        <a
          href="#/d/{session.id}/sheets"
          class={[here === 'sheets' && 'on']}
          aria-current={here === 'sheets' ? 'page' : undefined}>Sheets</a
        >
        <a
          href="#/d/{session.id}/bring-up"
          class={[here === 'bring-up' && 'on']}
          aria-current={here === 'bring-up' ? 'page' : undefined}>Bring-up</a
        >
        <a
          href="#/d/{session.id}/log"
          class={[here === 'log' && 'on']}
          aria-current={here === 'log' ? 'page' : undefined}>Log</a
        >
        <a
          href="#/d/{session.id}/practice"
          class={[here === 'practice' && 'on']}
          aria-current={here === 'practice' ? 'page' : undefined}>Practice</a
        >
      </div>
      <span class="caption kept" aria-live="polite" data-testid="kept">{keeper.words}{@render acts()}</span>
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
          class="btn btn-ghost btn-xs px-1!"
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
          class="btn btn-ghost btn-xs btn-square text-[15px]!"
          aria-label="Help"
          title="Help (?)"
          onclick={() => (help.open = true)}>?</button
        >
        {#if here === 'path'}
          <button
            type="button"
            class="next"
            onclick={() => (next ? route.toStation(session.id!, next.id) : route.go(`#/d/${session.id}/builds`))}
            >next<span class="to">: {next?.name ?? 'Builds'}</span> ›</button
          >
        {/if}
      </span>
    </div>
  </header>
  {#if keeper.words.startsWith('not kept')}<span class="caption unsafe" role="status" data-testid="not-kept"
      >{keeper.words}{@render acts()}</span
    >{/if}
  <Unkept />
</div>
<KeysDialog bind:open={help.open} />

<style>
  .title {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 0 16px;
    height: 38px;
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 8px;
    white-space: nowrap;
  }
  .word {
    font-size: 17px !important;
  }
  .name {
    border: 1px solid transparent;
    border-left: 1px solid var(--hair);
    background: none;
    font-size: 14px;
    height: 26px;
    padding: 0 10px;
    min-width: 80px;
    flex: 0 1 186px;
    text-overflow: ellipsis;
  }
  .name::placeholder {
    color: var(--ink-2);
    opacity: 1;
    font-style: italic;
  }
  .name:hover,
  .name:focus {
    border-color: var(--ink-3);
  }
  .demo {
    border: 1px dashed var(--ink-3);
    padding: 0 6px;
    font-size: 12px;
    color: var(--ink-2);
  }
  .rest {
    display: flex;
    align-items: center;
    gap: 12px;
    flex: 1;
    /* The name gives way before the places and tools run into the counts. */
    min-width: min-content;
  }
  .places {
    display: flex;
    gap: 12px;
    font-size: 13.5px;
  }
  .places a {
    white-space: nowrap;
    min-height: 26px;
    display: inline-flex;
    align-items: center;
    border-bottom: 2.5px solid transparent;
  }
  .places .on {
    font-weight: 700;
    border-color: var(--ink);
  }
  .kept {
    margin-right: auto;
    min-width: 0;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .counts {
    order: 1;
    display: flex;
    gap: 12px;
    white-space: nowrap;
    min-height: 26px;
    align-items: center;
    border-bottom: 1px solid var(--ink-3);
  }
  .rest {
    order: 0;
  }
  .tools {
    flex: none;
    display: flex;
    align-items: center;
    gap: 4px;
  }
  .next {
    color: var(--copper-text);
    font-weight: 700;
    padding: 4px 0 4px 6px;
    cursor: pointer;
    white-space: nowrap;
  }
  .more,
  .unsafe {
    display: none;
  }
  @media (max-width: 1199px) {
    .title,
    .rest {
      gap: 8px;
    }
    .word {
      display: none;
    }
    .places {
      gap: 8px;
      font-size: 13px;
    }
    .counts {
      gap: 8px;
    }
    .to,
    .demo {
      display: none;
    }
  }
  @media (max-width: 939px) {
    .to {
      display: inline;
    }
    .title {
      position: relative;
      padding: 0 4px 0 12px;
      height: 48px;
      gap: 8px;
    }
    .name {
      flex: 1 1 60px;
      min-width: 40px;
      height: 44px;
      padding: 0 6px;
    }
    .counts,
    .more {
      min-height: 44px;
      border: 0;
    }
    .more {
      order: 2;
      display: grid;
      place-items: center;
      width: 44px;
      cursor: pointer;
    }
    .unsafe {
      display: block;
      padding: 2px 12px;
      background: var(--ink);
      color: var(--sheet);
    }
    .unsafe :global(.link-copper) {
      color: var(--sheet);
    }
    .rest {
      display: none;
    }
    [data-menu='open'] .rest {
      display: flex;
      flex-direction: column;
      align-items: stretch;
      gap: 2px;
      position: absolute;
      z-index: 30;
      top: 48px;
      right: 0;
      left: 0;
      padding: 6px 12px 12px;
      background: var(--sheet);
      border-block: 1.5px solid var(--ink);
    }
    .places {
      flex-wrap: wrap;
      gap: 0 8px;
    }
    .places a {
      min-height: 44px;
      padding-inline: 10px;
    }
    .kept {
      margin: 4px 0;
      white-space: normal;
    }
    .tools {
      flex-wrap: wrap;
      gap: 8px;
    }
    .tools :global(.btn) {
      min-height: 44px;
      min-width: 44px;
    }
    .next {
      min-height: 44px;
      margin-left: auto;
    }
  }
  @media (max-width: 479px) {
    .demo {
      display: none;
    }
  }
</style>
