<script lang="ts">
  import { untrack } from 'svelte'
  import { tinykeys } from 'tinykeys'
  import { api } from '../api/client'
  import type { LedgerUnit } from '../api/client'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import AsTable from '../ui/AsTable.svelte'
  import Working from '../ui/Working.svelte'
  import { num, say } from '../ui/quantity'
  import { dayOf, long, numberOf, short, weekday } from './days'
  import Kept from './Kept.svelte'
  import { log } from './log.svelte'
  import MadeUp from './MadeUp.svelte'
  import Mornings from './Mornings.svelte'
  import Notes from './Notes.svelte'
  import TakeIn from './TakeIn.svelte'
  import Units from './Units.svelte'
  import Week from './Week.svelte'
  import WriteDown from './WriteDown.svelte'
  import type { Wish } from './WriteDown.svelte'

  /** The bank as it is lived with, against the plan. */
  const PAUSE_MS = 250
  let width = $state(1280)
  let file = $state(false)
  let wish = $state<Wish | null>(null)

  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => log.reset())
    return () => untrack(() => log.reset())
  })
  // The plan that stands is the one it is held against.
  $effect(() => {
    if (!session.evaluation) return
    void session.worked
    void session.bankIndex
    const timer = setTimeout(
      () => void log.ask(),
      untrack(() => (log.answer ? PAUSE_MS : 0)),
    )
    return () => clearTimeout(timer)
  })
  // A working that is open is one of the place that was left.
  $effect(() => {
    untrack(() => session.release())
    return () => untrack(() => session.release())
  })
  $effect(() => {
    return tinykeys(window, undoKeys({}, '[data-typed], textarea, dialog, input'))
  })

  const view = $derived(log.view)
  const frame = $derived(log.frame)
  const none = $derived((view?.mornings.length ?? 0) === 0)
  const phone = $derived(width < 560)
  /** The day in hand where there is room for one; at first the last of which there is something. */
  let only = $state<number | null>(null)
  const latest = $derived.by(() => {
    if (!frame) return 0
    const days = [...frame.lines.map((l) => l.day), ...frame.typed.map((t) => t.at)]
    return Math.max(0, ...days.map((d) => numberOf(d) - numberOf(frame.from)))
  })
  const one = $derived(frame ? Math.min(only ?? latest, frame.days - 1) : 0)
  const dayInHand = $derived(frame ? dayOf(numberOf(frame.from) + one) : '')
  const last = $derived(frame ? dayOf(numberOf(frame.from) + frame.days - 1) : '')
  const simulated = $derived(log.answer?.series.some((s) => s.kind === 'simulated') ?? false)

  function present(about: string) {
    const equation = view?.working.find((e) => e.pointer === `/log/${about}`)
    if (equation && view) session.present(equation, view.working)
  }
  const put = (u: LedgerUnit) => (wish = { kind: 'unit-in', place: u.place })
  const rows = $derived(
    frame?.lines.map((l) => [
      `${weekday(l.day)} ${long(l.day)}`,
      num(l.hours, 1),
      say(l.usedWh, 'Wh'),
      say(l.plannedWh, 'Wh'),
      say(l.sourceWh, 'Wh'),
      l.lowestSoc === null ? '' : `${num(l.lowestSoc * 100, 1)} %`,
    ]) ?? [],
  )
</script>

<svelte:window bind:innerWidth={width} />

<div class="bench">
  <TitleLine />
  <main class="sheet">
    <div class="head">
      <h1 class="headline" data-testid="headline">{view?.headline ?? 'The log is being read'}</h1>
      {#if view && frame}
        <p class="about">
          {#if !none}
            <span>
              <b
                >{weekday(frame.from)}
                {last.slice(0, 4) === frame.from.slice(0, 4) ? short(frame.from) : long(frame.from)} to {weekday(last)}
                {long(last)}</b
              >{simulated ? ', ' : ''}<b>{simulated ? 'simulated' : ''}</b>{view.told
                ? ''
                : ', charge counted from amperes alone'}{view.against ? ',' : ''}
              {#if view.against}
                <button
                  type="button"
                  class="figure"
                  aria-pressed={session.presented?.pointer === '/log/ratio'}
                  data-testid="ratio"
                  onclick={() => present('ratio')}
                  ><span class="fig">{num(view.against.ratio, 2)}</span> times the plan</button
                >
              {/if}
            </span>
          {/if}
          <button type="button" class="link-copper" onclick={() => (file = true)}>take in a file</button>
          <button type="button" class="link-copper" onclick={() => (wish = { kind: 'reading' })}>type a reading</button>
        </p>
      {/if}
      {#if log.trouble ?? session.failure}<p role="alert" class="note">{log.trouble ?? session.failure}</p>{/if}
      {#if log.taken}
        <p class="note" role="status">
          {log.taken.text}.
          <button type="button" class="link-copper" onclick={() => log.bringBack()}>bring it back</button>
        </p>
      {/if}
    </div>
    <div class="instrument">
      {#if session.design!.banks.length > 1}
        <p class="banks">
          {#each session.design!.banks as b, i (b.id)}
            <button
              type="button"
              class={['link-copper', b === session.bank && 'on']}
              aria-pressed={b === session.bank}
              onclick={() => session.toBank(i)}>{b.name || b.id}</button
            >
          {/each}
        </p>
      {/if}
      <MadeUp />
      {#if view && frame}
        {#if none}
          <p class="empty" data-testid="empty">
            Take in a monitor’s file, type this morning’s charge, or start the made-up monitor to see what becomes of
            it. Thin, below: the plan’s own days, from a full bank.
          </p>
          <Week {view} only={phone ? one : null} />
        {:else}
          {#if phone}
            <div class="days">
              <button type="button" class="btn btn-outline btn-sm" disabled={one === 0} onclick={() => (only = one - 1)}
                >‹</button
              >
              <b>{weekday(dayInHand)} {long(dayInHand)}</b>
              <button
                type="button"
                class="btn btn-outline btn-sm"
                disabled={one >= frame.days - 1}
                onclick={() => (only = one + 1)}>›</button
              >
            </div>
          {/if}
          <Week {view} only={phone ? one : null} />
          <p class="legend caption">
            Thick: measured. Thin: the plan from each midnight’s charge, with the same sun and plug. Hatched: what it
            did not know. Below: in with lines, out down; pale a start the plan knows, black with a foot one it does
            not. Days: grey to the tick is the plan, black is over it.
          </p>
          <Mornings {view} onlook={(from, days) => log.look(from, days)} />
        {/if}
        <Units {view} onput={put} />
        {#if view.units.length > 0}
          <p class="links">
            <button type="button" class="link-copper" onclick={() => (wish = { kind: 'unit-rest' })}
              >write down a unit</button
            >
            <button
              type="button"
              class="link-copper"
              onclick={() => session.worked && api.saveLog(session.id!, 'units.csv', session.worked, session.bankIndex)}
              >units as CSV</button
            >
          </p>
        {/if}
        <Kept />
        {#if rows.length > 0}
          <AsTable heads={['day', 'hours read', 'used', 'planned', 'from sources', 'lowest']} rows={[]} plain={rows} />
        {/if}
        {#if view.wait === null}
          <p class="caution">
            A monitor counts what goes through the bank: what sources gave beside the loads is worked out from what the
            loads drew, and AC that a plug feeds past the inverter is not seen.
          </p>
        {/if}
      {/if}
    </div>
    <div class="notes">
      {#if view}
        <Notes
          {view}
          ondone={(task) => (wish = view.fitted === null ? { kind: 'in-service' } : { kind: 'upkeep', task })}
          ontest={() => (wish = { kind: 'test' })}
        />
      {/if}
    </div>
  </main>
  {#if session.presented}<Working />{/if}
</div>
<TakeIn open={file} onclose={() => (file = false)} />
{#if view}<WriteDown {wish} {view} onclose={() => (wish = null)} />{/if}
{#if keeper.conflict}<Conflict />{/if}

<style>
  .bench {
    display: flex;
    flex-direction: column;
    height: 100dvh;
    padding-bottom: 12px;
  }
  .bench > :global(*) {
    flex: none;
  }
  .bench > .sheet {
    flex: 1;
    display: grid;
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 272px;
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .head {
    padding: 12px 16px 0;
  }
  .about {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    font-size: 12.5px;
    align-items: baseline;
  }
  .instrument {
    position: relative;
    padding: 4px 16px 12px;
    overflow: auto;
    min-height: 0;
  }
  .notes {
    grid-area: 1 / 2 / 3 / 3;
    position: relative;
    padding: 6px 14px 14px;
    border-left: 1px solid var(--hair);
    overflow: auto;
  }
  .banks,
  .links,
  .days {
    display: flex;
    gap: 14px;
    align-items: center;
  }
  .days {
    justify-content: space-between;
  }
  .on {
    color: var(--ink);
  }
  .figure {
    cursor: pointer;
    min-height: 24px;
    border: 1px solid transparent;
  }
  .figure:hover {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .figure[aria-pressed='true'] {
    border-color: var(--copper);
  }
  .empty {
    padding: 8px 0;
  }
  .legend {
    padding-left: 62px;
    margin: 2px 0 6px;
  }
  @media (max-width: 939px) {
    .bench {
      display: block;
      height: auto;
    }
    /* The answer and what it teaches come first. */
    .bench > .sheet {
      display: flex;
      flex-direction: column;
      margin: 0;
      border-inline: 0;
    }
    .head {
      padding: 12px 12px 0;
    }
    .instrument {
      order: 1;
      padding: 12px;
      overflow: visible;
      border-top: 1px solid var(--hair);
    }
    .notes {
      border-left: 0;
      padding: 0 12px 12px;
    }
    .legend {
      padding-left: 0;
    }
    .btn,
    .link-copper {
      min-height: 44px;
    }
  }
</style>
