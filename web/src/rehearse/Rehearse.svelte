<script lang="ts">
  import { untrack } from 'svelte'
  import { tinykeys } from 'tinykeys'
  import { api } from '../api/client'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import Path from '../drawing/Path.svelte'
  import AsTable from '../ui/AsTable.svelte'
  import ChoiceField from '../ui/ChoiceField.svelte'
  import Working from '../ui/Working.svelte'
  import { num, say, stringName } from '../ui/quantity'
  import QuantityField from '../ui/QuantityField.svelte'
  import { darkHours, QUARTERS } from './days'
  import Against from './Against.svelte'
  import DropList from './DropList.svelte'
  import Fortnight from './Fortnight.svelte'
  import Verdict from './Verdict.svelte'
  import { FORTNIGHT, year } from './year.svelte'
  import YearStrip from './YearStrip.svelte'

  /** Time run forward: the design lives a year before it is bought. */
  const PAUSE_MS = 300
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => year.reset())
    return () => untrack(() => year.reset())
  })
  // Any change of the design is a year of its own.
  $effect(() => {
    if (!session.evaluation) return
    void session.bankIndex
    if (year.isOf(session.worked)) return
    const timer = setTimeout(() => void year.run(), PAUSE_MS)
    return () => clearTimeout(timer)
  })

  let [height, width] = $state([800, 1280])
  // The path is the instant at the play head.
  $effect(() => {
    const day = Math.floor(year.at / QUARTERS)
    if (year.over) untrack(() => void year.lookAt(day))
  })
  // A working that is open is one of the station that was left.
  $effect(() => {
    untrack(() => session.release())
    return () => untrack(() => session.release())
  })

  let playing = $state(false)
  $effect(() => {
    if (!playing) return
    const timer = setInterval(() => {
      if (year.at + 1 >= year.days.length * QUARTERS) playing = false
      else year.go(year.at + 1)
    }, 60)
    return () => clearInterval(timer)
  })
  $effect(() => {
    // Keys of the play head, where nothing else has them.
    const head = (act: () => void) => (e: KeyboardEvent) => {
      if ((e.target as HTMLElement).closest('input, select, textarea, button, a, dialog, svg, summary')) return
      e.preventDefault()
      act()
    }
    return tinykeys(
      window,
      undoKeys({
        Space: head(() => (playing = !playing)),
        ArrowRight: head(() => year.go(year.at + 1)),
        ArrowLeft: head(() => year.go(year.at - 1)),
        'Shift+ArrowRight': head(() => year.go(year.at + QUARTERS)),
        'Shift+ArrowLeft': head(() => year.go(year.at - QUARTERS)),
      }),
    )
  })

  const wait = $derived(year.intro?.wait ?? null)
  const headline = $derived(
    wait
      ? wait[0].toUpperCase() + wait.slice(1)
      : (year.outcome?.headline ?? (year.running ? 'The year is being run' : 'A year of this design')),
  )
  const moment = $derived(
    `${year.calendar.weekday(Math.floor(year.at / QUARTERS))} ${year.calendar.moment(year.instant?.h ?? (year.at + 1) / 4)}`,
  )
  const instant = $derived.by(() => {
    const at = year.instant
    if (!at) return null
    return {
      charge: `${num(at.soc * 100, 1)} %`,
      volts: at.volts > 0 ? say(at.volts, 'V') : 'no volts',
      amps: say(-at.bankA, 'A'),
      dark: at.dark,
      strings: at.strings.map((s, i) => `${stringName(i + 1)} ${s.isOut ? 'open' : say(s.amps, 'A')}`).join(', '),
    }
  })
  const bank = $derived(session.bank)
  const next = $derived(year.quarters.length ? year.nextDark() : null)
  const dropped = [
    { kind: 'weather', text: 'a cloudy week', hours: 168, rest: { value: 0.25 } },
    { kind: 'string', text: 'a string opens', hours: 96, rest: { string: 1 } },
    { kind: 'charger', text: 'a charger fails', hours: 168, rest: {} },
    { kind: 'guest', text: 'a guest', hours: 4, rest: { value: 800 } },
    { kind: 'cold', text: 'cold', hours: 96, rest: { value: -5 } },
    { kind: 'plug', text: 'no plug', hours: 168, rest: {} },
    { kind: 'inverter', text: 'inverter left on', hours: 96, rest: {} },
    { kind: 'fuse', text: 'the fuse', hours: 24, rest: {} },
  ] as const
  const rows = $derived(
    year.days
      .slice(year.frame, year.frame + FORTNIGHT)
      .map((d, i) => [
        `${year.calendar.weekday(year.frame + i)} ${year.calendar.date(year.frame + i)}`,
        `${num(d.lowestSoc * 100, 1)} %`,
        darkHours(d.darkH),
        ...d.sourceWh.map((wh) => say(wh, 'Wh')),
        say(d.refusedWh, 'Wh'),
      ]),
  )
</script>

{#snippet sum(about: string, value: number, unit: string, decimals?: number)}
  <button
    type="button"
    class="fig figure"
    data-sum={about}
    aria-pressed={session.presented?.pointer === `/rehearsal/outcome/${about}`}
    onclick={() => year.present(about)}
    >{about === 'darkH' ? darkHours(value) : decimals === undefined ? say(value, unit) : num(value, decimals)}</button
  >
{/snippet}

<svelte:window bind:innerHeight={height} bind:innerWidth={width} />

<div class="bench">
  <TitleLine />
  {#if width >= 940}
    <Path
      folded={height < 560}
      short={height < 740}
      at={year.instant}
      when="the instant at the play head, {moment}, the busiest minute of its quarter"
    />
  {/if}
  <main class="sheet">
    <div class="head">
      <h1 class="headline" data-testid="headline">{headline}</h1>
      {#if year.trouble ?? session.failure}<p role="alert" class="note">{year.trouble ?? session.failure}</p>{/if}
    </div>
    <div class="instrument">
      {#if session.design!.banks.length > 1}
        <p class="banks">
          {#each session.design!.banks as b, i (b.id)}
            <button
              type="button"
              class={['link-copper', b === bank && 'on']}
              aria-pressed={b === bank}
              onclick={() => session.toBank(i)}>{b.name || b.id}</button
            >
          {/each}
        </p>
      {/if}
      <div class="controls">
        {#if year.running}
          <button type="button" class="btn btn-outline btn-sm" onclick={() => year.stop()}>Stop</button>
        {:else}
          <button type="button" class="btn btn-outline btn-sm" onclick={() => year.run()}>Run again</button>
        {/if}
        <label class="field"
          ><span class="caption">a year from</span><input
            type="date"
            value={session.design!.rehearsal.from ?? year.intro?.first ?? ''}
            data-testid="from"
            onchange={(e) => session.edit({ path: '/rehearsal/from', value: e.currentTarget.value || null }, true)}
          /></label
        >
        <QuantityField label="weather no." kind="number" path="/rehearsal/weather" whole width="74px" />
        <Against />
        {#if year.days.length > 0}
          <ChoiceField
            label="drop on the days"
            path="/drop"
            acts
            value={null}
            options={dropped.map((d) => ({ value: d.kind, text: d.text }))}
            none="choose…"
            width="128px"
            onpick={(kind) => {
              const d = dropped.find((x) => x.kind === kind)
              if (d) year.add(d.kind, d.hours, d.rest)
            }}
          />
          <span class="head-of-play">
            <button
              type="button"
              class="btn btn-outline btn-sm"
              aria-pressed={playing}
              title="Space"
              onclick={() => (playing = !playing)}>{playing ? 'Pause' : 'Play'}</button
            >
            <button
              type="button"
              class="btn btn-outline btn-sm"
              disabled={next === null}
              data-testid="next-dark"
              onclick={() => next !== null && year.go(next)}>next dark hour</button
            >
          </span>
        {/if}
      </div>
      {#if year.days.length > 0}
        <!-- Where the path is drawn it says the same. -->
        <p class={['instant', width >= 940 && 'sr-only']} data-testid="instant" aria-live="off">
          {#if instant}
            <b>{moment}</b>: <span class="fig">{instant.charge}</span>, <span class="fig">{instant.volts}</span>,
            <span class="fig">{instant.amps}</span>; strings
            <span class="fig">{instant.strings}</span>{#if instant.dark};
              <b>dark</b>{/if}
          {/if}
        </p>
        <Fortnight />
        {#if year.against}
          <p class="note" data-testid="against">Dashed, {year.against.name}: {year.against.headline}.</p>
        {/if}
        <YearStrip />
        {#if year.outcome}
          {@const o = year.outcome}
          <p class="note" data-testid="sums">
            In the year {@render sum('servedWh', o.sums.servedAcWh + o.sums.servedDcWh, 'Wh')} served,
            {@render sum('unservedWh', o.sums.unservedWh, 'Wh')} missed;
            {@render sum('sourceWh', o.sums.sourceWh, 'Wh')} taken of the sources,
            {@render sum('clippedWh', o.sums.clippedWh, 'Wh')} refused;
            {@render sum('cyclesPerYear', o.cyclesPerYear, '', 1)} full cycles;
            {@render sum('longestUnfilledDays', o.longestUnfilledDays, '', 1)} days at most without being filled{#if o.sums.generatorStarts > 0};
              generator {@render sum('generatorH', o.sums.generatorH, 'h')} in
              <span class="fig">{num(o.sums.generatorStarts)}</span> starts{/if}; dark {@render sum(
              'darkH',
              o.darkH,
              'h',
            )}.
          </p>
        {/if}
        <DropList />
        <AsTable
          heads={['day', 'lowest', 'dark', ...(year.intro?.sources.map((s) => s.name) ?? []), 'refused']}
          rows={[]}
          plain={rows}
        />
        <p class="note">
          As a file, a line
          {#each [['day', 'a day'], ['quarter', 'a quarter of an hour'], ['step', 'a minute']] as const as [by, text], i (by)}
            {i > 0 ? ' · ' : ''}<button
              type="button"
              class="link-copper"
              onclick={() => session.worked && api.saveYear(session.worked, session.bankIndex, by)}>{text}</button
            >
          {/each}
        </p>
      {/if}
      <p class="caution">
        Made-up weather and rest volts: a real year differs. Loads by hours lie evenly over their day; temperature
        within a day, lithium’s own taper and links between strings are not in it.
      </p>
    </div>
    <div class="notes"><Verdict /></div>
  </main>
  {#if session.presented}<Working />{/if}
</div>
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
  .instrument {
    position: relative;
    padding: 0 16px 12px;
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
  .banks {
    display: flex;
    gap: 14px;
  }
  .on {
    color: var(--ink);
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: flex-end;
    margin: 4px 0 6px;
  }
  .field {
    display: inline-flex;
    flex-direction: column;
  }
  .head-of-play {
    display: flex;
    gap: 4px;
  }
  input[type='date'] {
    font: inherit;
    font-size: 13px;
    border: 1px solid var(--ink-3);
    background: var(--sheet);
    color: var(--ink);
    height: 26px;
    padding: 0 4px;
  }
  .instant {
    font-size: 12.5px;
    margin-bottom: 4px;
  }
  @media (max-width: 939px) {
    .bench {
      display: block;
      height: auto;
    }
    /* The answer and what can be done about it come first. */
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
    .btn,
    .link-copper,
    input[type='date'] {
      min-height: 44px;
    }
  }
</style>
