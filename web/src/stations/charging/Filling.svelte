<script lang="ts">
  import type { ChargedDay } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { stepUp125 } from '../../drawing/geometry'
  import type { DayAxis } from '../../ui/dayAxis'
  import { clock, num, say } from '../../ui/quantity'
  import { bench } from './bench.svelte'
  import Hatches from './Hatches.svelte'
  import { hatchOf } from './sources'

  /** A month's day: the bank as a vessel between floor and full, what comes in above the line, what leaves below it. */
  let { axis, day, narrow }: { axis: DayAxis; day: ChargedDay; narrow: boolean } = $props()
  const uid = $props.id()
  let width = $state(600)
  let height = $state(260)
  const right = $derived(axis.left + axis.width)
  const e = $derived(session.result!)
  const charging = $derived(bench.charging!)
  const month = $derived(day.month - 1)
  const soc = $derived(day.all.soc)
  const floor = $derived(1 - e.bank!.need.dod)

  // The vessel, on one scale for every month.
  const vessel = { top: 8, height: 64 }
  const low = $derived(Math.max(0, Math.min(floor, day.all.lowestSoc, day.withoutPlug.lowestSoc) - 0.02))
  const ySoc = (s: number) => vessel.top + ((1 - s) / (1 - low)) * vessel.height
  const step = $derived(24 / day.out.acW.length)
  const x = (i: number) => axis.x(Math.min(24, i * step))
  const line = (values: number[]) => values.map((s, i) => `${i === 0 ? 'M' : 'L'}${x(i)} ${ySoc(s)}`).join('')
  const plugged = $derived(day.all.sources.length !== day.withoutPlug.sources.length)

  // The flows: one scale up and down.
  const flows = $derived({ top: vessel.top + vessel.height + 26, bottom: height - 18 })
  const sum = (series: number[][]) => day.out.acW.map((_, i) => series.reduce((all, s) => all + s[i], 0))
  const offered = $derived(sum(day.all.sources.map((s) => s.offeredW)))
  const out = $derived(sum([day.out.idleW, day.out.acW, day.out.dcW]))
  const mostIn = $derived(Math.max(50, ...offered))
  const mostOut = $derived(Math.max(50, ...out))
  const px = $derived((flows.bottom - flows.top - 12) / (mostIn + mostOut))
  const zero = $derived(flows.top + 12 + mostIn * px)
  const y = (watts: number) => zero - watts * px

  function band(from: number[], to: number[]) {
    let d = ''
    for (let i = 0; i < from.length; i++) {
      if (Math.abs(to[i] - from[i]) * px < 0.2) continue
      let j = i
      while (j + 1 < from.length && from[j + 1] === from[i] && to[j + 1] === to[i]) j++
      d += `M${x(i)} ${y(from[i])}V${y(to[i])}H${x(j + 1)}V${y(from[j])}Z`
      i = j
    }
    return d
  }
  /** The outline of a stretch of steps, above a base. */
  function outline(base: number[], top: number[]) {
    let d = ''
    let open = false
    for (let i = 0; i <= base.length; i++) {
      const there = i < base.length && (top[i] - base[i]) * px > 0.6
      if (there && !open) d += `M${x(i)} ${y(base[i])}V${y(top[i])}`
      if (there && open && top[i] !== top[i - 1]) d += `H${x(i)}V${y(top[i])}`
      if (!there && open) d += `H${x(i)}V${y(base[i - 1])}`
      open = there
    }
    return d
  }
  const nothing = $derived(day.out.acW.map(() => 0))
  /** Each source's energy on top of the others'. */
  const stack = $derived.by(() => {
    let base = nothing
    return day.all.sources.map((s) => {
      const from = base
      const to = base.map((b, i) => b + s.takenW[i])
      base = to
      const index = charging.sources.findIndex((r) => r.id === s.id)
      const peak = to.reduce(
        (best, w, i) => (s.takenW[i] > 0 && w > to[best] ? i : best),
        s.takenW.findIndex((w) => w > 0),
      )
      const last = s.takenW.findLastIndex((w) => w === s.takenW[peak])
      return {
        ...s,
        from,
        to,
        index,
        kind: charging.sources[index]?.kind ?? 'other',
        name: charging.sources[index]?.name ?? '',
        peak,
        last,
      }
    })
  })
  const taken = $derived(stack.at(-1)?.to ?? nothing)
  const below = $derived.by(() => {
    const idle = day.out.idleW.map((w) => -w)
    const ac = idle.map((w, i) => w - day.out.acW[i])
    const dc = ac.map((w, i) => w - day.out.dcW[i])
    return { idle, ac, dc }
  })
  const why: Record<string, string> = {
    cold: 'cells too cold',
    full: 'bank full',
    voltage: 'bank full',
    'c-rate': 'cells take no more',
    units: 'units take no more',
    acceptance: 'lead fills slowly',
    sources: '',
  }
  const refused = $derived(
    stack
      .filter((s) => s.refusedWh >= 5)
      .map((s) => {
        const at = s.takenW.findIndex((w, i) => s.offeredW[i] - w > 1)
        const end = s.takenW.findLastIndex((w, i) => s.offeredW[i] - w > 1)
        return { ...s, at, end, words: why[s.why[0]?.why ?? ''] ?? '' }
      }),
  )
  const mark = $derived(stepUp125(18 / px))
  const marks = $derived(
    [...Array.from({ length: 4 }, (_, i) => (i + 1) * mark).filter((w) => w <= mostIn * 1.02), 0].concat(
      Array.from({ length: 4 }, (_, i) => -(i + 1) * mark).filter((w) => -w <= mostOut * 1.02),
    ),
  )
  const worst = $derived(out.reduce((best, w, i) => (w > out[best] ? i : best), 0))
  const change = $derived(day.all.soc.at(-1)! - day.all.soc[0])
  const percent = (s: number, decimals = 0) => `${num(s * 100, decimals)} %`
</script>

<Drawing
  name="The day of the month: charge, what comes in and what leaves"
  bind:width
  bind:height
  fill
  floor={narrow ? 270 : 196}
>
  <Hatches id={uid} />
  <!-- The vessel. -->
  <rect x={axis.left} y={ySoc(1)} width={axis.width} height={ySoc(floor) - ySoc(1)} fill="var(--page)" />
  <rect
    x={axis.left}
    y={ySoc(floor)}
    width={axis.width}
    height={Math.max(3, vessel.top + vessel.height - ySoc(floor))}
    fill="url(#{uid}-slanted)"
  />
  <path d="{line(soc)}L{right} {ySoc(1)}L{axis.left} {ySoc(1)}Z" fill="var(--sheet)" />
  <line x1={axis.left} x2={right} y1={ySoc(1)} y2={ySoc(1)} stroke="var(--ink-3)" />
  <line x1={axis.left} x2={right} y1={ySoc(floor)} y2={ySoc(floor)} stroke="var(--ink)" />
  <text x={axis.left - 6} y={ySoc(1) + 4} text-anchor="end">full</text>
  <text x={axis.left - 6} y={ySoc(floor) + 4} text-anchor="end">floor</text>
  {#if plugged}
    <path d={line(day.withoutPlug.soc)} fill="none" stroke="var(--ink)" stroke-dasharray="4 3" />
  {/if}
  <path d={line(soc)} fill="none" stroke="var(--ink)" stroke-width="1.8" data-testid="charge-line" />
  {#each [0, soc.length - 1] as i (i)}
    <circle cx={x(i)} cy={ySoc(soc[i])} r="3.5" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4" />
  {/each}
  <text x={axis.left - 6} y={Math.max(ySoc(soc[0]) + 4, ySoc(1) + 18)} text-anchor="end" class="fig"
    >{percent(soc[0], 1)}</text
  >
  <circle cx={axis.x(day.all.lowestH)} cy={ySoc(day.all.lowestSoc)} r="3.5" fill="var(--ink)" />
  <text
    x={axis.x(day.all.lowestH)}
    y={ySoc(day.all.lowestSoc) + 15}
    text-anchor={day.all.lowestH > 18 ? 'end' : day.all.lowestH < 4 ? 'start' : 'middle'}
    class="fig"
    style:--ground="var(--page)"
    data-give>{percent(day.all.lowestSoc)}<tspan class="word" dx="3">lowest, {clock(day.all.lowestH)}</tspan></text
  >
  <text x={axis.left + 6} y={ySoc(floor) - 5} style:--ground="var(--page)" class="word" data-give
    >the day moves <tspan class="fig">{say(day.movesWh, 'Wh')}</tspan>{narrow
      ? ''
      : ` of the ${say(e.bank!.holds.usableWh, 'Wh')}`}</text
  >
  <text x={right - 4} y={ySoc(floor) - 5} text-anchor="end" style:--ground="var(--page)" class="word" data-give
    >{Math.abs(change) > 0.0005 ? 'from full it ends' : narrow ? 'ends' : 'ends as it began,'}
    <tspan class="fig">{change < -0.0005 ? '−' : change > 0.0005 ? '+' : '±'}{num(Math.abs(change) * 100, 1)} %</tspan
    ></text
  >
  <!-- The flows. -->
  {#each axis.ticks() as h (h)}
    <line x1={axis.x(h)} x2={axis.x(h)} y1={flows.top} y2={flows.bottom} stroke="var(--grid)" />
    <text x={axis.x(h)} y={height - 4} text-anchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'} class="axis"
      >{clock(h)}</text
    >
  {/each}
  {#each marks as w (w)}
    <line x1={axis.left} x2={right} y1={y(w)} y2={y(w)} stroke="var(--grid)" />
    <text x={axis.left - 6} y={y(w) + 4} text-anchor="end" class="axis">{w === 0 ? '0 W' : num(Math.abs(w))}</text>
  {/each}
  <path d={band(nothing, below.idle)} fill="var(--ink-2)" />
  <path d={band(below.idle, below.ac)} fill="var(--hair)" stroke="var(--ink-2)" stroke-width="0.6" />
  <path d={band(below.ac, below.dc)} fill="var(--page)" stroke="var(--ink-3)" stroke-width="0.6" />
  <path d={outline(taken, offered)} fill="none" stroke="var(--ink)" stroke-dasharray="3 2.5" />
  {#each stack as s (s.id)}
    <path d={band(s.from, s.to)} fill="url(#{uid}-{hatchOf[s.kind]})" data-in={s.id} />
    <path d={outline(s.from, s.to)} fill="none" stroke="var(--ink)" />
  {/each}
  <line x1={axis.left} x2={right} y1={zero} y2={zero} stroke="var(--ink)" stroke-width="1.6" />
  <text x={axis.left + 4} y={flows.top + 10} class="side"><tspan font-weight="700">in</tspan></text>
  <text x={axis.left + 4} y={flows.bottom - 5} class="side"><tspan font-weight="700">out</tspan></text>
  {#each stack as s (s.id)}
    {#if s.peak >= 0}
      {@const at = (x(s.peak) + x(s.last + 1)) / 2}
      {@const anchor = at > right - 60 ? 'end' : at < axis.left + 50 ? 'start' : 'middle'}
      {#if s.refusedWh < 5}
        <FigText
          ptr="/charging/months/{month}/bySource/{s.index}"
          unit="Wh"
          label="{s.name}, a day"
          x={at}
          y={y(s.to[s.peak]) - 4}
          {anchor}
          size={13}
          give
        />
      {:else}
        <text x={at} y={y(s.to[s.peak]) - 4} text-anchor={anchor} class="fig" style:font-size="13px" data-give
          >{say(s.takenWh, 'Wh')}</text
        >
      {/if}
    {/if}
  {/each}
  {#each refused as s (s.id)}
    {@const at = (x(s.at) + x(s.end + 1)) / 2}
    <text
      x={at}
      y={y(Math.max(...offered.slice(s.at, s.end + 1))) - 4}
      text-anchor={at > right - 70 ? 'end' : 'middle'}
      class="word"
      data-give><tspan class="fig">{say(s.refusedWh, 'Wh')}</tspan> refused{s.words ? `: ${s.words}` : ''}</text
    >
  {/each}
  <FigText
    ptr="/charging/months/{month}/needWh"
    unit="Wh"
    label="asked a day"
    x={right - 4}
    y={flows.bottom - 5}
    anchor="end"
    size={14}
    after="leaves the bank"
    give
  />
  <text
    x={x(worst) < axis.left + 70 ? x(worst) + 5 : x(worst) - 5}
    y={y(-out[worst]) - 2}
    text-anchor={x(worst) < axis.left + 70 ? 'start' : 'end'}
    class="fig"
    data-give>{num(out[worst])} W</text
  >
  {#if !narrow}
    <text x={right} y={flows.top + 2} text-anchor="end" class="word" data-give>means of a quarter of an hour</text>
  {/if}
</Drawing>

<style>
  .axis,
  .side {
    font-size: 11px;
    fill: var(--ink-2);
  }
  .word {
    font-family: 'Badger Digits', 'Badger Words', 'Badger Signs', sans-serif;
    font-stretch: 100%;
    font-weight: 400;
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .word .fig {
    fill: var(--ink);
    font-weight: 680;
  }
</style>
