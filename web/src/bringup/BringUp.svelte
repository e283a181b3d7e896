<script lang="ts">
  import { untrack } from 'svelte'
  import { tinykeys } from 'tinykeys'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import Working from '../ui/Working.svelte'
  import Beside from './Beside.svelte'
  import { bringUp } from './bringup.svelte'
  import Gate from './Gate.svelte'
  import Loop from './Loop.svelte'
  import Order from './Order.svelte'
  import StepBench from './StepBench.svelte'

  /** Bringing it up with the meter, step by step in the only safe order: made for a phone beside the bank, in gloves. */
  const PAUSE_MS = 60
  const SWIPE_PX = 70

  $effect(() => {
    void session.id
    untrack(() => bringUp.reset())
    return () => untrack(() => bringUp.reset())
  })
  // What was read, and any change of the design, is judged anew.
  $effect(() => {
    void session.worked
    void session.evaluation
    const timer = setTimeout(() => void bringUp.ask(), PAUSE_MS)
    return () => clearTimeout(timer)
  })
  const step = $derived(bringUp.step)
  $effect(() => {
    const working = step?.working ?? []
    untrack(() => (working.length > 0 ? session.present(working[0], working) : session.release()))
  })
  $effect(() => {
    const typing = (e: KeyboardEvent) => (e.target as HTMLElement).closest('input, textarea, select, dialog') !== null
    const act = (f: () => void) => (e: KeyboardEvent) => {
      if (typing(e)) return
      e.preventDefault()
      f()
    }
    const keys = { ArrowDown: act(() => bringUp.go(1)), ArrowUp: act(() => bringUp.go(-1)) }
    return tinykeys(window, undoKeys(keys, 'input, textarea, select, dialog'))
  })

  /** On a narrow screen one of them lies over the step. */
  let drawer = $state<'steps' | 'todo' | 'more' | null>(null)
  const walk = $derived(bringUp.walk)
  const shut = $derived(
    walk?.gates.find((g) => !g.open && g.before <= bringUp.index) ??
      walk?.gates.find((g) => g.before > bringUp.index && !g.open) ??
      null,
  )
  const key = $derived(step?.key)
  $effect(() => {
    void key
    drawer = null
  })

  let from: { x: number; y: number } | null = null
  function down(e: PointerEvent) {
    const free = !(e.target as HTMLElement).closest('input, textarea, .drawer, .loop')
    from = e.pointerType === 'touch' && free ? { x: e.clientX, y: e.clientY } : null
  }
  function up(e: PointerEvent) {
    if (!from) return
    const [dx, dy] = [e.clientX - from.x, e.clientY - from.y]
    from = null
    if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > 2 * Math.abs(dy)) bringUp.go(dx < 0 ? 1 : -1)
  }
</script>

<svelte:head><title>{session.evaluation!.name}, bring-up</title></svelte:head>
<div class="place">
  <TitleLine />
  {#if bringUp.trouble ?? session.failure}<p role="alert" class="note away">
      {bringUp.trouble && !session.failure ? bringUp.trouble : session.failure}
      {#if walk}The steps go on: readings wait here and are sent in their order.{/if}
    </p>{/if}
  {#if walk && step}
    <div class="marks" role="group" aria-label="{walk.done} of {walk.steps.length} steps done">
      <button type="button" class="link-copper" data-testid="steps" onclick={() => (drawer = 'steps')}
        >{bringUp.index + 1} of {walk.steps.length}, steps</button
      >
      <svg viewBox="0 0 {walk.steps.length * 6} 14" preserveAspectRatio="none" aria-hidden="true">
        {#each walk.steps as s, i (s.key)}
          {@const here = i === bringUp.index}
          {#if walk.gates.some((g) => g.before === i)}<rect
              x={i * 6 - 1}
              y="0"
              width="1.6"
              height="14"
              fill="var(--ink)"
            />{/if}
          <rect
            x={i * 6 + 1}
            y={here ? 1 : s.state === 'open' || s.state === 'reopened' ? 5 : 3}
            width="4"
            height={here ? 12 : s.state === 'open' || s.state === 'reopened' ? 4 : 8}
            fill={here
              ? 'var(--copper)'
              : s.state === 'done'
                ? 'var(--ink-3)'
                : s.state === 'open' || s.state === 'reopened'
                  ? 'var(--hair)'
                  : 'var(--ink)'}
          />
        {/each}
      </svg>
    </div>
    <main class="sheet">
      <div class="left"><Order /></div>
      <div class="mid" role="presentation" onpointerdown={down} onpointerup={up}>
        <StepBench {step} ontodo={() => (drawer = 'todo')} />
      </div>
      <div class="right"><Beside {step} /></div>
    </main>
    <div class="wide"><Working /></div>
    <div class="foot">
      {#if shut}<Gate gate={shut} />{/if}
      <button
        type="button"
        class="btn more"
        data-testid="more"
        onclick={() => (drawer = drawer === 'more' ? null : 'more')}
        >{drawer === 'more' ? 'close' : 'working, readings before, the meter'}</button
      >
    </div>
    {#if drawer}
      <div
        class="drawer"
        role="dialog"
        aria-modal="true"
        aria-label={drawer === 'steps' ? 'The order of steps' : 'More'}
      >
        <button
          type="button"
          class="btn shut"
          data-testid="close"
          {@attach (n) => n.focus()}
          onclick={() => (drawer = null)}>back to the step</button
        >
        {#if drawer === 'steps'}<Order onpick={() => (drawer = null)} />
        {:else}
          {#if drawer === 'more'}
            <Working />
            {#if walk.loops.find((l) => l.bank === step.bank)}<div class="across">
                <Loop loop={walk.loops.find((l) => l.bank === step.bank)!} />
              </div>{/if}
          {/if}
          <Beside {step} short={drawer === 'todo'} />
        {/if}
      </div>
    {/if}
  {:else}
    <main class="sheet none">
      <h1 class="headline" data-testid="headline">
        {walk ? walk.headline : bringUp.trouble ? 'The server does not answer' : 'The steps are being put in order'}
      </h1>
      {#if walk}<p class="note">
          The steps follow from the design. <a class="link-copper" href="#/d/{session.id}/bank">Choose a unit at Bank</a
          >.
        </p>{/if}
    </main>
  {/if}
</div>
{#if keeper.conflict}<Conflict />{/if}

<style>
  .place {
    display: flex;
    flex-direction: column;
    height: 100dvh;
  }
  .away {
    margin: 0 16px 2px;
  }
  .sheet {
    flex: 1;
    display: grid;
    grid-template-columns: 232px minmax(0, 1fr) 272px;
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .sheet > div {
    padding: 10px 14px;
    overflow: auto;
    min-height: 0;
  }
  .left {
    border-right: 1px solid var(--hair);
  }
  .right {
    border-left: 1px solid var(--hair);
  }
  .none {
    display: block;
    padding: 16px;
  }
  .marks,
  .foot,
  .drawer {
    display: none;
  }
  @media (max-width: 939px) {
    .place {
      height: auto;
      min-height: 100dvh;
    }
    .sheet {
      display: block;
      margin: 0;
      border-inline: 0;
      border-bottom: 0;
      flex: none;
    }
    .sheet > .mid {
      padding: 0;
      overflow: visible;
      touch-action: pan-y;
    }
    .left,
    .right,
    .wide {
      display: none;
    }
    .marks {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 0 14px;
    }
    .marks svg {
      flex: 1;
      height: 14px;
      min-width: 0;
    }
    .marks button {
      min-height: 44px;
      white-space: nowrap;
      font-size: 14px;
    }
    .foot {
      display: block;
      margin-top: auto;
    }
    .foot .more {
      width: 100%;
      min-height: 48px;
      background: var(--page);
      border: 0;
    }
    .drawer {
      display: block;
      position: fixed;
      inset: 0;
      z-index: 20;
      background: var(--sheet);
      overflow: auto;
      padding: 0 14px 24px;
    }
    .across {
      overflow-x: auto;
      padding-bottom: 12px;
    }
    .drawer .shut {
      position: sticky;
      top: 0;
      width: 100%;
      min-height: 48px;
      margin-bottom: 8px;
      z-index: 2;
    }
  }
</style>
