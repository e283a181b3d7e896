<script lang="ts">
  import type { LogView } from '../api/client'
  import Drawing from '../drawing/Drawing.svelte'
  import Hatches from '../stations/charging/Hatches.svelte'
  import { num, say } from '../ui/quantity'
  import { dayOf, numberOf, short, since, weekday } from './days'

  /** The days looked at: charge as it was and as planned, amperes in and out, and what each day came to. */
  interface Props {
    view: LogView
    /** Only this day of the frame, where there is room for one. */
    only?: number | null
  }
  let { view, only = null }: Props = $props()
  const uid = $props.id()
  let width = $state(900)
  const left = 62
  const right = $derived(width - 10)

  const frame = $derived(view.frame)
  const first = $derived(only === null ? frame.from : dayOf(numberOf(frame.from) + only))
  const count = $derived(only === null ? frame.days : 1)
  const dayWide = $derived((right - left) / count)
  const x = (days: number) => left + days * dayWide
  const perDay = $derived(86_400 / frame.drawn.stepS)
  const begin = $derived(Math.round((only ?? 0) * perDay))
  const steps = $derived(Math.min(frame.drawn.soc.length - begin, Math.round(count * perDay)))
  const at = (i: number) => x((i + 1) / perDay)

  const TOP = 30
  const TALL = 128
  const planned = $derived(frame.drawn.planSoc.filter((s): s is number => s !== null))
  const lowest = $derived(
    Math.min(view.floorSoc, ...frame.drawn.soc.filter((s): s is number => s !== null), ...planned),
  )
  const y = (soc: number) => TOP + ((1 - soc) / Math.max(0.05, 1 - lowest)) * TALL

  /** Stretches without a gap: what was not read is not drawn. */
  function runs(values: (number | null)[]): { i: number; v: number }[][] {
    const list: { i: number; v: number }[][] = []
    let now: { i: number; v: number }[] = []
    for (let i = 0; i < steps; i++) {
      const v = values[begin + i]
      if (v === null || v === undefined) {
        if (now.length) list.push(now)
        now = []
      } else now.push({ i, v })
    }
    if (now.length) list.push(now)
    return list
  }
  const path = (points: { i: number; v: number }[]) =>
    points.map((p, n) => `${n ? 'L' : 'M'}${at(p.i)} ${y(p.v)}`).join('')
  const measured = $derived(runs(frame.drawn.soc))
  /** From each midnight anew. */
  const plan = $derived(
    runs(frame.drawn.planSoc).flatMap((run) => {
      const parts: { i: number; v: number }[][] = []
      for (const p of run)
        if (p.i % perDay === 0 || parts.length === 0) parts.push([p])
        else parts.at(-1)!.push(p)
      return parts
    }),
  )
  const wedges = $derived(
    plan
      .map((part) => {
        const back = part
          .map((p) => ({ i: p.i, v: frame.drawn.soc[begin + p.i] }))
          .filter((p): p is { i: number; v: number } => p.v !== null)
        return back.length < 2
          ? ''
          : `${path(part)}${back
              .toReversed()
              .map((p) => `L${at(p.i)} ${y(p.v)}`)
              .join('')}Z`
      })
      .join(''),
  )

  const AMPS_TOP = TOP + TALL + 20
  const AMPS = 104
  const starts = $derived(
    view.frame.starts.map((s) => ({ ...s, d: since(s.at, first) })).filter((s) => s.d >= 0 && s.d < count),
  )
  const mostIn = $derived(
    Math.max(5, ...part(frame.drawn.mostInA), ...part(frame.drawn.sunA), ...part(frame.drawn.otherA)),
  )
  const mostOut = $derived(Math.max(5, ...part(frame.drawn.mostOutA), ...starts.map((s) => s.amps)))
  function part(values: (number | null)[]): number[] {
    return values.slice(begin, begin + steps).filter((v): v is number => v !== null)
  }
  const perA = $derived(AMPS / (mostIn + mostOut))
  const zero = $derived(AMPS_TOP + mostIn * perA)
  const yA = (out: number) => zero + out * perA
  const above = (values: (number | null)[]) =>
    runs(values.map((v) => (v !== null && v > 0.05 ? v : null)))
      .map(
        (run) =>
          `M${at(run[0].i - 1)} ${zero}${run.map((p) => `L${at(p.i)} ${yA(-p.v)}`).join('')}L${at(run.at(-1)!.i)} ${zero}Z`,
      )
      .join('')
  const sun = $derived(above(frame.drawn.sunA))
  const others = $derived(above(frame.drawn.otherA))
  const drawn = $derived(
    Array.from({ length: steps }, (_, i) => ({ i, most: frame.drawn.mostOutA[begin + i] ?? 0 }))
      .filter((p) => p.most > mostOut * 0.01)
      .map((p) => `M${at(p.i) - dayWide / perDay / 2} ${zero}V${yA(p.most)}`)
      .join(''),
  )
  const unknown = $derived(starts.filter((s) => !s.known))
  const typed = $derived(
    frame.typed.map((t) => ({ ...t, d: since(t.at, first) })).filter((t) => t.soc !== null && t.d >= 0 && t.d < count),
  )
  /** Times are written on one day only, the one on which they have most room. */
  const told = $derived.by(() => {
    let best = { day: -1, room: 0 }
    for (let d = 0; d < count; d++) {
      const own = unknown.filter((s) => Math.floor(s.d) === d).map((s) => s.d)
      const gaps = own.slice(1).map((v, i) => v - own[i])
      const room = own.length === 0 ? 0 : Math.min(0.12, ...gaps) * own.length
      if (room > best.room) best = { day: d, room }
    }
    return best.day
  })
  const peak = $derived.by(() => {
    let best = { i: -1, v: 0 }
    for (let i = 0; i < steps; i++) {
      const v = frame.drawn.mostOutA[begin + i] ?? 0
      if (v > best.v) best = { i, v }
    }
    return best
  })

  const lines = $derived(
    frame.lines.map((l) => ({ ...l, d: numberOf(l.day) - numberOf(first) })).filter((l) => l.d >= 0 && l.d < count),
  )
  const KWH_TOP = AMPS_TOP + AMPS + 16
  const wide = $derived(dayWide >= 74)
  const KWH = $derived(wide ? 10 : 30)
  const mostWh = $derived(Math.max(1, ...lines.map((l) => Math.max(l.usedWh, l.plannedWh))))
  const length = (wh: number) => (Math.max(0, wh) / mostWh) * (dayWide - 46)
  const tall = (wh: number) => (Math.max(0, wh) / mostWh) * KWH
  const height = $derived(KWH_TOP + KWH + 8)
  const every = $derived(Math.max(1, Math.ceil(66 / dayWide)))
  const days = $derived(Array.from({ length: count }, (_, i) => ({ i, day: dayOf(numberOf(first) + i) })))
  const lowAt = $derived(frame.lowestAt ? since(frame.lowestAt, first) : -1)
</script>

<Drawing name="The days looked at" bind:width {height}>
  <Hatches id={uid} />
  {#each days as { i, day } (day)}
    {#if i % every === 0}
      <line x1={x(i)} x2={x(i)} y1="6" y2={height} stroke="var(--hair)" />
      <text x={x(i) + 5} y="16" class="day"
        >{#if every > 4}{short(day)}{:else}<tspan font-weight="700">{weekday(day)} {Number(day.slice(8, 10))}</tspan>
          {#if i === 0 || day.endsWith('-01')}<tspan>{short(day).split(' ')[1]}</tspan>{/if}{/if}</text
      >
    {/if}
  {/each}

  {#each [1, 0.7, 0.4] as mark (mark)}
    {#if mark > lowest}
      <line x1={left} x2={right} y1={y(mark)} y2={y(mark)} stroke="var(--grid)" />
      <text x={left - 6} y={y(mark) + 4} text-anchor="end" class="small"
        >{mark === 1 ? 'full 100 %' : num(mark * 100)}</text
      >
    {/if}
  {/each}
  {#if view.floorSoc > 0}
    <line x1={left} x2={right} y1={y(view.floorSoc)} y2={y(view.floorSoc)} stroke="var(--ink)" stroke-width="1.4" />
    <text x={left - 6} y={y(view.floorSoc) + 4} text-anchor="end" class="small">floor {num(view.floorSoc * 100)}</text>
  {/if}
  <path d={wedges} fill="url(#{uid}-slanted)" data-wedge />
  {#each plan as part (part[0].i)}<path d={path(part)} fill="none" stroke="var(--ink-2)" data-plan />{/each}
  {#each measured as run (run[0].i)}
    <path d={path(run)} fill="none" stroke="var(--ink)" stroke-width={count > 45 ? 1 : 2.2} data-charge />
  {/each}
  {#each typed as t, i (i)}
    <circle cx={x(t.d)} cy={y(t.soc!)} r="4" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.6" data-typed
      ><title>{t.at.slice(11)}: {num(t.soc! * 100)} %, typed</title></circle
    >
  {/each}
  {#if frame.lowest !== null && lowAt >= 0 && lowAt <= count}
    <circle cx={x(lowAt)} cy={y(frame.lowest)} r="4.5" fill="var(--ink)" />
    <text
      x={lowAt > count * 0.85 ? x(lowAt) - 8 : x(lowAt) + 8}
      y={y(frame.lowest) + 14}
      text-anchor={lowAt > count * 0.85 ? 'end' : 'start'}
      data-give><tspan class="fig">{num(frame.lowest * 100)} %</tspan><tspan class="small" dx="4">lowest</tspan></text
    >
  {/if}

  <text x={left - 6} y={yA(-mostIn) + 8} text-anchor="end" class="small">{num(mostIn)} in</text>
  <text x={left - 6} y={zero + 4} text-anchor="end" class="small">0 A</text>
  <text x={left - 6} y={yA(mostOut) + 2} text-anchor="end" class="small">{num(mostOut)} out</text>
  <path d={sun} fill="none" stroke="var(--ink)" stroke-width="0.9" data-sun />
  <path d={others} fill="url(#{uid}-level)" stroke="var(--ink)" stroke-width="0.8" data-others />
  <line x1={left} x2={right} y1={zero} y2={zero} stroke="var(--ink)" stroke-width="1.4" />
  {#each starts.filter((s) => s.known) as s, i (i)}
    <rect
      x={x(s.d)}
      y={zero}
      width={Math.max(2, ((s.hours ?? 0.25) / 24) * dayWide)}
      height={Math.max(1, s.amps * perA)}
      fill="var(--hair)"
    />
  {/each}
  <path
    d={drawn}
    fill="none"
    stroke="var(--ink-2)"
    stroke-width={Math.max(0.7, Math.min(1.2, dayWide / perDay))}
    data-drawn
  />
  {#each unknown as s, i (i)}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <g
      data-stop
      data-unknown
      tabindex="-1"
      role="img"
      aria-label="{s.at.slice(11)} {weekday(s.at)}, not planned: {s.name ?? 'something'}, {say(s.amps, 'A')}"
    >
      <title>{s.at.slice(11)}: {s.name ?? 'nothing the plan knows'}, {say(s.amps, 'A')}, not planned</title>
      <line x1={x(s.d)} x2={x(s.d)} y1={zero} y2={yA(s.amps)} stroke="var(--ink)" stroke-width="2.4" />
      <circle cx={x(s.d)} cy={yA(s.amps)} r="3.6" fill="var(--ink)" />
      {#if dayWide > 90 && Math.floor(s.d) === told}
        <text x={x(s.d)} y={yA(s.amps) + 15} text-anchor="middle" class="small" data-give>{s.at.slice(11)}</text>
      {/if}
    </g>
  {/each}
  {#if peak.i >= 0}
    <text x={at(peak.i) + 5} y={yA(peak.v) + 2} class="fig" data-give>{say(peak.v, 'A')}</text>
  {/if}

  <text x={left - 6} y={KWH_TOP + (wide ? 9 : KWH)} text-anchor="end" class="small">kWh a day</text>
  {#each lines as l (l.day)}
    {#if wide}
      {@const x0 = x(l.d) + 5}
      <rect
        x={x0}
        y={KWH_TOP}
        width={length(Math.min(l.usedWh, l.plannedWh))}
        height={KWH}
        fill="var(--ink-3)"
        opacity={l.whole ? 0.6 : 0.3}
      />
      {#if l.usedWh > l.plannedWh}
        <rect
          x={x0 + length(l.plannedWh)}
          y={KWH_TOP}
          width={length(l.usedWh) - length(l.plannedWh)}
          height={KWH}
          fill="var(--ink)"
        />
      {/if}
      <line
        x1={x0 + length(l.plannedWh)}
        x2={x0 + length(l.plannedWh)}
        y1={KWH_TOP - 3}
        y2={KWH_TOP + KWH + 3}
        stroke="var(--ink)"
        stroke-width="1.4"
      />
      <text x={x0 + length(Math.max(l.usedWh, l.plannedWh)) + 5} y={KWH_TOP + 9.5} class="fig"
        >{num(l.usedWh / 1000, 2)}{l.whole ? '' : ' …'}</text
      >
    {:else}
      {@const w = Math.max(1, dayWide - 1)}
      <rect
        x={x(l.d)}
        y={KWH_TOP + KWH - tall(Math.min(l.usedWh, l.plannedWh))}
        width={w}
        height={tall(Math.min(l.usedWh, l.plannedWh))}
        fill="var(--ink-3)"
      />
      {#if l.usedWh > l.plannedWh}
        <rect
          x={x(l.d)}
          y={KWH_TOP + KWH - tall(l.usedWh)}
          width={w}
          height={tall(l.usedWh) - tall(l.plannedWh)}
          fill="var(--ink)"
        />
      {/if}
    {/if}
  {/each}
</Drawing>

<style>
  .day {
    font-size: 12px;
  }
  .small {
    font-size: 11px;
  }
</style>
