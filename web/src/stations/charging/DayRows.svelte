<script lang="ts">
  import type { ChargedDay } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { stops } from '../../drawing/stops'
  import type { DayAxis } from '../../ui/dayAxis'
  import DayBars from '../../ui/DayBars.svelte'
  import { num, say } from '../../ui/quantity'
  import { bench } from './bench.svelte'
  import Hatches from './Hatches.svelte'
  import HoursField from './HoursField.svelte'
  import { hatchOf, hoursOf } from './sources'

  /** A row a source, on the hours of the drawing above: sun and what is told by the hour stand, drive and plug are dragged or typed. */
  let { axis, day, narrow }: { axis: DayAxis; day: ChargedDay | null; narrow: boolean } = $props()
  const uid = $props.id()
  const charging = $derived(bench.charging!)
  const bank = $derived(session.bank!)

  const rows = $derived(
    charging.sources.map((s, i) => {
      const own = bank.sources.findIndex((d) => d.id === s.id)
      const inverter = s.builtIn ? bank.inverters.findIndex((d) => `charger-${d.id}` === s.id) : -1
      const doc = own >= 0 ? bank.sources[own] : null
      const path = inverter >= 0 ? `/inverters/${inverter}/chargerWindows` : `/sources/${own}/windows`
      const windows = (inverter >= 0 ? bank.inverters[inverter].chargerWindows : doc?.windows) ?? null
      const fixed = s.kind === 'solar' || !!doc?.wattsByHour
      const offered = day?.all.sources[i]?.offeredW ?? []
      const from = offered.findIndex((w) => w > 0)
      const to = offered.findLastIndex((w) => w > 0) + 1
      return { ...s, i, path, windows, fixed, doc, from: (from * 24) / 96, to: (to * 24) / 96 }
    }),
  )
  const label = (row: { name: string; kind: keyof typeof hoursOf }) =>
    row.name.toLowerCase() === hoursOf[row.kind] ? row.name : `${row.name}, ${hoursOf[row.kind]}`
  const facing = (a: number) =>
    Math.abs(a) < 15 ? 'to the equator' : Math.abs(a) > 165 ? 'to the pole' : a > 0 ? 'west of it' : 'east of it'
  const sunWords = (row: (typeof rows)[number]) => {
    const array = row.doc?.array
    if (!array || !row.arrayW) return 'say its modules'
    const latitude = session.design!.place.latitudeDeg
    const where = latitude === null ? '' : `, ${num(Math.abs(latitude))}° ${latitude < 0 ? 'south' : 'north'}`
    return `${say(row.arrayW, 'W')} ${array.tiltDeg < 1 ? 'flat' : `${num(array.tiltDeg)}° ${facing(array.azimuthDeg)}`}${where}`
  }
</script>

<!-- One tab stop: the arrows reach the bars, Enter takes one in hand. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="rows" role="group" aria-label="Hours of the sources. Arrow keys reach the bars." tabindex="0" use:stops>
  {#each rows as row (row.id)}
    <div class="row" data-hours={row.id}>
      <div class="left" style:width="{narrow ? 0 : axis.left - 6}px">
        {#if row.fixed}
          <button type="button" class="name" onclick={() => (bench.dialog = { what: 'source', index: row.i })}
            >{row.name}</button
          >
        {:else if !narrow}
          <HoursField label={label(row)} path={row.path} windows={row.windows} hideLabel width="{axis.left - 8}px" />
        {/if}
      </div>
      <div class="bars" style:margin-left="{narrow ? axis.left : 6}px" style:width="{axis.width}px">
        {#if row.fixed}
          <svg width={axis.width} height="22" aria-hidden="true" class="block">
            <Hatches id={uid} />
            {#each axis.ticks() as h (h)}
              <line x1={axis.x(h) - axis.left} x2={axis.x(h) - axis.left} y1="0" y2="22" stroke="var(--grid)" />
            {/each}
            {#if row.to > row.from}
              <rect
                x={axis.x(row.from) - axis.left}
                y="5"
                width={axis.x(row.to) - axis.x(row.from)}
                height="12"
                fill="url(#{uid}-{hatchOf[row.kind]})"
                stroke="var(--ink-3)"
              />
            {/if}
          </svg>
          <span class="told" style:left="{Math.max(0, axis.x(row.to) - axis.left + 6)}px"
            >{row.kind === 'solar' ? sunWords(row) : 'by the hour'}</span
          >
        {:else}
          <DayBars
            name={label(row)}
            id={row.id}
            windows={row.windows ?? []}
            axis={axis.at(0)}
            fill={hatchOf[row.kind] === 'upright' ? 'upright' : 'level'}
            height={narrow ? 44 : 24}
            changes={(windows) => [{ path: `~${row.path}`, value: windows }]}
            emptied={() => [{ path: `~${row.path}`, value: null }]}
            snapshot={() => [{ path: `~${row.path}`, value: row.windows }]}
          />
          {#if !(row.windows ?? []).some((w) => w[0] < 4 || w[1] < w[0])}<span class="told" style:left="4px"
              >{label(row)}</span
            >{/if}
        {/if}
      </div>
      {#if narrow && !row.fixed}
        <HoursField label={label(row)} path={row.path} windows={row.windows} width="180px" />
      {/if}
    </div>
  {/each}
</div>

<style>
  .row {
    display: flex;
    align-items: center;
    border-top: 1px solid var(--grid);
    min-height: 26px;
  }
  .left :global(.field > div),
  .left :global(p) {
    position: absolute;
    z-index: 5;
    background: var(--sheet);
  }
  .name {
    font-weight: 650;
    cursor: pointer;
    min-height: 24px;
    max-width: 100%;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
    text-align: left;
  }
  .bars {
    position: relative;
  }
  .told {
    position: absolute;
    top: 50%;
    transform: translateY(-50%);
    pointer-events: none;
    font-size: 12px;
    color: var(--ink-2);
    background: var(--sheet);
    padding: 0 3px;
    white-space: nowrap;
  }
  @media (max-width: 939px) {
    .row {
      flex-direction: column;
      align-items: flex-start;
      gap: 2px;
      padding: 3px 0;
    }
  }
</style>
