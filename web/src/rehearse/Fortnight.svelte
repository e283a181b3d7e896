<script lang="ts">
  import type { Drop } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num, say } from '../ui/quantity'
  import Drawing from '../drawing/Drawing.svelte'
  import { cut } from '../drawing/geometry'
  import Hatches from '../stations/charging/Hatches.svelte'
  import { darkHours, QUARTERS, stretches } from './days'
  import { FORTNIGHT, year } from './year.svelte'

  /** Two weeks at once: suns that are dragged, what is dropped, the vessel with its dark hours solid, the watts into and out of it. */
  const uid = $props.id()
  let width = $state(900)
  let svg = $state<SVGGElement>()
  const left = 62
  const right = $derived(width - 8)
  const shown = $derived(width < 560 ? 5 : FORTNIGHT)
  const first = $derived(
    shown === FORTNIGHT
      ? year.frame
      : Math.max(0, Math.min(year.days.length - shown, Math.floor(year.at / QUARTERS) - 2)),
  )
  const x = (hour: number) => left + ((hour - first * 24) / (shown * 24)) * (right - left)
  const days = $derived(Array.from({ length: shown }, (_, i) => first + i).filter((d) => d < year.days.length))

  const suns = $derived((year.intro?.sources ?? []).flatMap((s, i) => (s.clearWh ? [{ ...s, i }] : [])))
  const clear = $derived(suns.reduce((sum, s) => sum + s.clearWh!, 0))
  const sunOf = (day: number) => suns.reduce((sum, s) => sum + (year.dayAt(day)?.sourceWh[s.i] ?? 0), 0)
  const RING = 13

  /** What is in hand: a sun, an end of a drop, or the play head. */
  interface Held {
    what: 'sun' | 'from' | 'to' | 'head'
    at: number
    /** Of a sun: its share of the clearest day, now and when it was taken. */
    share?: number
    was?: number
    hour?: number
  }
  let held = $state<Held | null>(null)
  const drops = $derived(
    (year.intro?.drops ?? [])
      .map((d) =>
        held?.hour !== undefined && held.at === d.index
          ? { ...d, [held.what === 'from' ? 'fromH' : 'toH']: held.hour }
          : d,
      )
      .filter((d) => d.toH > first * 24 && d.fromH < (first + shown) * 24),
  )
  const sunsTop = 20
  const dropsTop = $derived(suns.length ? sunsTop + 2 * RING + 16 : sunsTop)
  const vesselTop = $derived(dropsTop + Math.max(1, drops.length) * 19 + 10)
  const TALL = 92
  const vesselEnd = $derived(vesselTop + TALL)
  /** Drive, plug and generator: their hours are told by when they give. */
  const hours = $derived((year.intro?.sources ?? []).flatMap((s, i) => (s.clearWh ? [] : [{ ...s, i }])))
  const ROW = 15
  const wattsTop = $derived(vesselEnd + 14 + hours.length * ROW)
  const WATTS = 62
  const height = $derived(wattsTop + WATTS + 6)
  const y = (soc: number) => vesselTop + (1 - soc) * TALL

  const quarters = $derived(days.flatMap((d) => year.quartersAt(d)?.soc.map((soc, q) => ({ d, q, soc })) ?? []))
  const hourOf = (d: number, q: number) => d * 24 + (q + 1) / 4
  const charge = $derived(quarters.map((p, i) => `${i ? 'L' : 'M'}${x(hourOf(p.d, p.q))} ${y(p.soc)}`).join(''))
  const other = $derived(
    quarters
      .map((p, i) => {
        const soc = year.against?.quarters[p.d]?.soc[p.q]
        return soc === undefined ? '' : `${i ? 'L' : 'M'}${x(hourOf(p.d, p.q))} ${y(soc)}`
      })
      .join(''),
  )
  const dark = $derived(stretches(quarters.map((p) => year.quartersAt(p.d)!.dark[p.q])))
  /** Whether a part of the vessel is dark: nothing is written there. */
  const blackAt = (from: number, to: number) =>
    dark.some(
      ([a, b]) =>
        x(hourOf(quarters[a].d, quarters[a].q)) < to && x(hourOf(quarters[b - 1].d, quarters[b - 1].q)) > from,
    )
  const darkH = $derived(year.trying?.darkH ?? year.outcome?.fortnightDarkH[year.frame] ?? 0)
  const mostW = $derived(Math.max(100, ...days.flatMap((d) => year.quartersAt(d)?.netW.map((w) => Math.abs(w)) ?? [])))
  const yW = (w: number) => wattsTop + WATTS / 2 - (w / mostW) * (WATTS / 2)
  const watts = $derived(
    quarters
      .map((p, i) => {
        const at = yW(year.quartersAt(p.d)!.netW[p.q])
        return `${i ? 'L' : 'M'}${x(hourOf(p.d, p.q) - 0.25)} ${at}H${x(hourOf(p.d, p.q))}`
      })
      .join(''),
  )

  const hourAt = (e: PointerEvent) => {
    const box = svg!.ownerSVGElement!.getBoundingClientRect()
    return first * 24 + ((e.clientX - box.left - left) / (right - left)) * shown * 24
  }
  function take(e: PointerEvent, what: Held['what'], at: number) {
    ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    const was = what === 'sun' ? sunOf(at) / clear : undefined
    held = { what, at, share: was, was }
    if (what === 'head') year.go(hourAt(e) * 4)
  }
  function move(e: PointerEvent) {
    if (!held) return
    if (held.what === 'head') year.go(hourAt(e) * 4)
    else if (held.what === 'sun') {
      held.share = Math.max(0.03, Math.min(1, held.share! - e.movementY / 40))
      // The fortnight follows the hand; the year follows once it is let go.
      const drops = withSun(held.at, held.share, held.was!)
      if (drops) void year.attempt(drops)
    } else {
      const drop = year.intro!.drops.find((d) => d.index === held!.at)!
      const hour = Math.round(hourAt(e))
      held.hour = held.what === 'from' ? Math.min(hour, drop.toH - 1) : Math.max(hour, drop.fromH + 1)
    }
  }
  function leave() {
    if (held?.what === 'sun') sunTo(held.at, held.share!, held.was!)
    else if (held?.hour !== undefined && (held.what === 'from' || held.what === 'to'))
      year.change(held.at, { [held.what]: year.calendar.iso(held.hour) })
    held = null
  }
  /** A day's sun as a share of the clearest day: that day gets a sky of its own. Null: nothing changes. */
  function withSun(day: number, share: number, now: number): Drop[] | null {
    if (!(now > 0) || Math.abs(share - now) < 0.005) return null
    const [from, to] = [year.calendar.iso(day * 24), year.calendar.iso((day + 1) * 24)]
    const own = year.drops.findIndex((d) => d.kind === 'weather' && d.from === from && d.to === to)
    const before = own >= 0 ? (year.drops[own].value ?? 1) : 1
    const value = Math.max(0.02, Math.min(2, Number((before * (share / now)).toFixed(2))))
    if (own >= 0) return year.drops.map((d, i) => (i === own ? { ...d, value } : d))
    const bank = session.bankIndex > 0 ? session.bank!.id : null
    return [...year.drops, { kind: 'weather', from, to, value, string: null, source: null, bank, weekdays: null }]
  }
  function sunTo(day: number, share: number, now: number) {
    const drops = withSun(day, share, now)
    year.leave(drops !== null)
    if (drops) year.setDrops(drops)
  }
  function sunKey(e: KeyboardEvent, day: number) {
    const step = e.key === '+' || e.key === 'PageUp' ? 0.1 : e.key === '-' || e.key === 'PageDown' ? -0.1 : 0
    if (!step) return
    e.preventDefault()
    const now = sunOf(day) / clear
    sunTo(day, Math.max(0.03, Math.min(1, now + step)), now)
  }
  const here = $derived(x((year.at + 1) / 4))
</script>

<Drawing name="Two weeks of the bank" bind:width {height}>
  <Hatches id={uid} />
  <g bind:this={svg}>
    {#each days as d (d)}
      <line x1={x(d * 24)} x2={x(d * 24)} y1="4" y2={height} stroke="var(--grid)" />
      <text x={x(d * 24 + 12)} y="13" text-anchor="middle" class="day"
        >{year.calendar.weekday(d)}
        <tspan font-weight="700"
          >{(d === first && !year.calendar.isFirstOfMonth(d + 1)) || year.calendar.isFirstOfMonth(d)
            ? year.calendar.date(d)
            : year.calendar.date(d).split(' ')[0]}</tspan
        ></text
      >
    {/each}
    {#if suns.length}
      <text x="0" y={sunsTop + RING + 4} class="row">sun, kWh</text>
      {#each days as d (d)}
        {@const share = held?.what === 'sun' && held.at === d ? held.share! : Math.min(1, sunOf(d) / clear)}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <g
          class="sun"
          data-stop
          data-sun={d}
          tabindex="-1"
          role="slider"
          aria-label="sun on {year.calendar.date(d)}"
          aria-valuenow={Math.round(share * 100)}
          aria-valuemin="0"
          aria-valuemax="100"
          aria-valuetext="{say(sunOf(d), 'Wh')}, {num(share * 100)} % of the clearest day"
          onpointerdown={(e) => take(e, 'sun', d)}
          onpointermove={move}
          onpointerup={leave}
          onkeydown={(e) => sunKey(e, d)}
        >
          <circle cx={x(d * 24 + 12)} cy={sunsTop + RING} r={RING} fill="var(--sheet)" stroke="var(--ink)" />
          <circle cx={x(d * 24 + 12)} cy={sunsTop + RING} r={RING * Math.sqrt(share)} fill="var(--ink-3)" />
          <text x={x(d * 24 + 12)} y={sunsTop + 2 * RING + 12} text-anchor="middle" class="fig small"
            >{num(sunOf(d) / 1000, 1)}</text
          >
        </g>
      {/each}
    {/if}
    <text x="0" y={dropsTop + 12} class="row">dropped</text>
    {#each drops as d, i (d.index)}
      {@const [a, b] = [Math.max(left, x(d.fromH)), Math.min(right, x(d.toH))]}
      {@const top = dropsTop + 3 + i * 19}
      <g data-drop={d.index}>
        <rect
          x={a}
          y={top}
          width={Math.max(2, b - a)}
          height="13"
          fill={d.kind === 'weather' || d.kind === 'cold' || d.kind === 'plug'
            ? 'var(--sheet)'
            : d.kind === 'guest' || d.kind === 'inverter'
              ? 'var(--ink)'
              : `url(#${uid}-slanted)`}
          stroke="var(--ink)"
        />
        {#each ['from', 'to'] as const as end (end)}
          {@const at = end === 'from' ? d.fromH : d.toH}
          {#if x(at) >= left - 1 && x(at) <= right + 1}
            <rect
              class="grip"
              x={x(at) - 7}
              y={top - 4}
              width="14"
              height="19"
              fill="transparent"
              role="presentation"
              onpointerdown={(e) => take(e, end, d.index)}
              onpointermove={move}
              onpointerup={leave}
            />
            <rect x={x(at) - 2} y={top - 2} width="4" height="17" fill="var(--ink)" pointer-events="none" />
          {/if}
        {/each}
        {#if b - a > 160}
          <!-- In it, where there is room: before and behind there may be none. -->
          {@const wide = d.words.length * 6 + 8}
          <rect x={a + 8} y={top + 1} width={wide} height="11" fill="var(--sheet)" />
          <text x={a + 12} y={top + 10.5} class="small">{d.words}</text>
        {:else}
          <text
            x={b + 8 > right - 130 ? a - 8 : b + 8}
            y={top + 10}
            text-anchor={b + 8 > right - 130 ? 'end' : 'start'}
            class="small"
            data-give>{d.words}</text
          >
        {/if}
      </g>
    {:else}<text x={left} y={dropsTop + 12} class="small pale">nothing yet</text>
    {/each}

    <!-- The vessel: solid from floor to full is dark, and is seen first. -->
    <text x="0" y={vesselTop + 4} class="row">full</text>
    <text x="0" y={vesselTop + TALL / 2} class="row">charge</text>
    {#if year.intro && year.intro.floorSoc > 0}
      <rect
        x={left}
        y={y(year.intro.floorSoc)}
        width={right - left}
        height={vesselEnd - y(year.intro.floorSoc)}
        fill="url(#{uid}-slanted)"
        opacity="0.5"
      />
      <line x1={left} x2={right} y1={y(year.intro.floorSoc)} y2={y(year.intro.floorSoc)} stroke="var(--ink-2)" />
      <text x="0" y={y(year.intro.floorSoc) + 4} class="row">floor</text>
    {/if}
    <rect
      x={left}
      y={vesselTop}
      width={right - left}
      height={TALL}
      fill="none"
      stroke="var(--ink)"
      stroke-width="1.4"
    />
    {#if quarters.length}
      <path
        d="{charge}L{x(hourOf(quarters.at(-1)!.d, quarters.at(-1)!.q))} {vesselEnd}L{x(
          hourOf(quarters[0].d, quarters[0].q),
        )} {vesselEnd}Z"
        fill="var(--fill, var(--hair))"
        opacity="0.55"
      />
    {/if}
    {#each dark as [a, b] (a)}
      {@const from = hourOf(quarters[a].d, quarters[a].q) - 0.25}
      {@const to = hourOf(quarters[b - 1].d, quarters[b - 1].q)}
      <rect
        x={x(from)}
        y={vesselTop}
        width={Math.max(1.5, x(to) - x(from))}
        height={TALL}
        fill="var(--ink)"
        data-dark
      />
    {/each}
    <path d={charge} fill="none" stroke="var(--ink)" stroke-width="2" data-charge />
    {#if year.against}
      <path d={other} fill="none" stroke="var(--sheet)" stroke-width="4" />
      <path d={other} fill="none" stroke="var(--ink)" stroke-width="1.6" stroke-dasharray="5 4" data-against />
    {/if}
    {#if darkH > 0}
      <text
        x={blackAt(right - 190, right) ? left + 6 : right - 4}
        y={vesselTop + 15}
        text-anchor={blackAt(right - 190, right) ? 'start' : 'end'}
        class="word"
        data-give><tspan class="fig big">{darkHours(darkH)}</tspan> dark in these two weeks</text
      >
    {/if}

    {#each hours as s, n (s.id)}
      {@const top = vesselEnd + 7 + n * ROW}
      <text x="0" y={top + 9} class="row">{cut(s.name, 9)}</text>
      {#each stretches(quarters.map((p) => (year.quartersAt(p.d)!.sourceW[s.i]?.[p.q] ?? 0) > 0)) as [a, b] (a)}
        <rect
          x={x(hourOf(quarters[a].d, quarters[a].q) - 0.25)}
          y={top}
          width={Math.max(1.5, ((b - a) / 4 / (shown * 24)) * (right - left))}
          height="9"
          fill={s.kind === 'mains' || s.kind === 'generator' ? 'var(--sheet)' : 'var(--ink)'}
          stroke="var(--ink)"
        />
      {/each}
    {/each}
    <text x="0" y={wattsTop + WATTS / 2 + 4} class="row">watts in</text>
    <text x={left - 5} y={wattsTop + 8} text-anchor="end" class="small">{num(mostW)}</text>
    <text x={left - 5} y={wattsTop + WATTS} text-anchor="end" class="small">−{num(mostW)}</text>
    <line x1={left} x2={right} y1={yW(0)} y2={yW(0)} stroke="var(--ink-2)" />
    <path d={watts} fill="none" stroke="var(--ink)" />

    <rect
      class="grip"
      x={left}
      y={vesselTop}
      width={right - left}
      height={height - vesselTop}
      fill="transparent"
      role="presentation"
      onpointerdown={(e) => take(e, 'head', 0)}
      onpointermove={move}
      onpointerup={leave}
    />
    {#if here >= left && here <= right}
      <path d="M{here - 6} {vesselTop - 8}h12l-6 8z" fill="var(--copper)" pointer-events="none" />
      <line
        x1={here}
        x2={here}
        y1={vesselTop - 2}
        y2={height}
        stroke="var(--copper)"
        stroke-width="1.6"
        pointer-events="none"
        data-head
      />
    {/if}
  </g>
</Drawing>

<style>
  .day {
    font-size: 11.5px;
  }
  .row {
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .small {
    font-size: 11px;
  }
  .pale {
    fill: var(--ink-2);
  }
  .word {
    font-size: 12px;
  }
  .big {
    font-size: 15px;
  }
  .sun {
    cursor: ns-resize;
    touch-action: none;
  }
  .grip {
    cursor: ew-resize;
    touch-action: none;
  }
</style>
