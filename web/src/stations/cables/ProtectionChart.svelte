<script lang="ts">
  import type { ProtectionChart } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { cut, diameterMm, step125, stepUp125 } from '../../drawing/geometry'
  import { say } from '../../ui/quantity'
  import { ampsMark, LogPaper, marks125, MOST_S, TIMES } from './logPaper'
  import { protection } from './protection.svelte'

  /** Seconds against amperes: right of a band its fuse is open, right of a copper line that copper burns. */
  let { chart }: { chart: ProtectionChart } = $props()
  const uid = $props.id()
  let width = $state(900)
  let height = $state(360)
  const narrow = $derived(width < 560)

  const firsts = $derived(
    [
      chart.own?.points[0].amps,
      chart.upstream?.points[0].amps,
      chart.copper?.ampacityA,
      ...chart.dots.filter((d) => !d.pale).map((d) => d.amps),
    ].filter((a): a is number => typeof a === 'number' && a > 0),
  )
  const lasts = $derived(
    [
      chart.shortA,
      chart.mainShortA,
      chart.own?.points.at(-1)?.amps,
      chart.copper ? chart.copper.fiveSecondsA * 4 : null,
      ...chart.stairs.flatMap((s) => s.steps.map((x) => x.amps)),
    ].filter((a): a is number => typeof a === 'number' && a > 0),
  )
  const fromA = $derived(step125(Math.min(...(firsts.length > 0 ? firsts : [10])) * 0.7))
  const toA = $derived(
    stepUp125(
      Math.max(chart.shortA ?? 0, chart.mainShortA ?? 0, chart.shortA === null ? Math.max(...lasts, 100) : 0) * 1.15,
    ),
  )
  const along = $derived(chart.along.length > 1)
  /** Lengths that are written: the ends, and what has room between. */
  const written = $derived.by(() => {
    const [first, last] = [chart.along[0], chart.along.at(-1)!]
    if (!first) return new Set<typeof first>()
    const kept = [paper.x(first.amps), paper.x(last.amps)]
    return new Set([
      first,
      last,
      ...chart.along.filter((p) => {
        const x = paper.x(p.amps)
        if (kept.some((k) => Math.abs(k - x) < 26)) return false
        kept.push(x)
        return true
      }),
    ])
  })
  const paper = $derived(new LogPaper(width, height, fromA, Math.max(toA, fromA * 10), along ? 62 : 26))
  const marks = $derived(marks125(paper.fromA, paper.toA))
  const bands = $derived(
    [
      { fuse: chart.upstream, own: false },
      { fuse: chart.own, own: true },
    ]
      .filter((b) => b.fuse !== null)
      .map(({ fuse, own }) => {
        const inside = fuse!.points.filter((p) => p.amps <= fuse!.breaksA * (1 + 1e-9))
        const beyond = fuse!.points.filter((p) => p.amps >= fuse!.breaksA * (1 - 1e-9) && p.amps <= paper.toA)
        return {
          own,
          fuse: fuse!,
          area: paper.area(
            inside.map((p) => ({ amps: p.amps, s: p.leastS })),
            inside.map((p) => ({ amps: p.amps, s: p.mostS })),
          ),
          middle: paper.line(inside.map((p) => ({ amps: p.amps, s: p.seconds }))),
          beyond: [
            paper.line(beyond.map((p) => ({ amps: p.amps, s: p.leastS }))),
            paper.line(beyond.map((p) => ({ amps: p.amps, s: p.mostS }))),
          ],
          bar: fuse!.breaksA < (chart.shortA ?? 0) ? inside.at(-1)! : null,
          label: inside[Math.min(1, inside.length - 1)],
        }
      }),
  )
  const coppers = $derived(
    [chart.mainCopper, chart.copper]
      .filter((c) => c !== null)
      .map((c) => {
        const last = Math.min(
          c.run === 'main' || !chart.shortA ? paper.toA : Math.max(chart.shortA, c.fiveSecondsA),
          paper.toA,
        )
        const s = (a: number) => c.withstandsA2s / (a * a)
        const solid = paper.line([
          { amps: c.fiveSecondsA, s: 5 },
          { amps: last, s: s(last) },
        ])
        return { ...c, solid, thick: Math.max(1.2, diameterMm(c.areaMm2)), last, end: s(last) }
      }),
  )
  const stairs = $derived(
    chart.stairs.map((stair) => {
      const [first, ...rest] = stair.steps
      let d = `M${paper.x(first.amps).toFixed(1)} ${paper.top}`
      for (const step of rest) d += `V${paper.y(step.seconds).toFixed(1)}H${paper.x(step.amps).toFixed(1)}`
      const last = stair.steps.at(-1)!
      return {
        ...stair,
        d: d + `V${paper.y(0.02).toFixed(1)}`,
        x: paper.x(last.amps),
        first: paper.x(first.amps),
        amps: last.amps,
      }
    }),
  )
  const field = (f: ProtectionChart['burns'][number]) =>
    paper.area(
      f.points.map((p) => ({ amps: p.amps, s: p.fromS })),
      f.points.map((p) => ({ amps: p.amps, s: p.toS })),
    )
  const crossing = $derived(
    chart.aloneUpToA !== null && chart.both.length > 0 && chart.aloneUpToA < (chart.shortA ?? 0) * (1 - 1e-6)
      ? { amps: chart.aloneUpToA, s: chart.both[0].points[0].fromS }
      : null,
  )
  const burnsAt = $derived(chart.burns[0]?.points[Math.floor(chart.burns[0].points.length / 2)] ?? null)
  const wall = $derived(chart.shortA === null ? null : paper.x(chart.shortA))
  const probe = $derived(chart.probe)

  /** A fuse by its rating, and what it is. */
  const nameOf = (name: string): [string, string] => {
    const [rating, unit, ...rest] = name.replace(/^the /, '').split(' ')
    return [`${rating} ${unit}`, rest.slice(0, 3).join(' ')]
  }
  const hints = [
    'Left of a hatched band its fuse holds, right of it the fuse is open,',
    'inside it may be either. Right of a copper line that copper burns.',
    'Lower right corner of a stair: what the inverter, dashed the BMS, still gives.',
  ]
  let dragging = $state(false)
  let svg: SVGGElement
  function to(e: PointerEvent) {
    const box = svg.ownerSVGElement!.getBoundingClientRect()
    const amps = paper.ampsAt(e.clientX - box.left)
    protection.toAmps(Math.min(Math.max(amps, paper.fromA), chart.shortA ?? paper.toA))
  }
  function down(e: PointerEvent) {
    if (e.button !== 0 || !probe) return
    dragging = true
    ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    to(e)
    e.preventDefault()
  }
  function up(e: PointerEvent) {
    if (!dragging) return
    dragging = false
    ;(e.currentTarget as Element).releasePointerCapture(e.pointerId)
    protection.show()
  }
  function key(e: KeyboardEvent) {
    if (!probe) return
    const step = e.shiftKey ? 1.2 : 1.03
    if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') {
      e.preventDefault()
      e.stopPropagation()
      const amps = e.key === 'ArrowRight' ? probe.amps * step : probe.amps / step
      protection.toAmps(Math.min(Math.max(amps, paper.fromA), chart.shortA ?? paper.toA))
    }
    if (e.key === 'Enter') protection.show()
  }
</script>

<Drawing name={chart.headline} bind:width bind:height fill floor={330}>
  <defs>
    <pattern id="{uid}-up" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(40)">
      <line x1="1" x2="1" y1="0" y2="6" stroke="var(--ink-3)" stroke-width="0.9" />
    </pattern>
    <pattern id="{uid}-own" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <line x1="1" x2="1" y1="0" y2="5" stroke="var(--ink-2)" stroke-width="0.9" />
    </pattern>
    <pattern id="{uid}-both" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <rect width="5" height="5" fill="var(--sheet)" /><line
        x1="1.2"
        x2="1.2"
        y1="0"
        y2="5"
        stroke="var(--ink)"
        stroke-width="2.2"
      />
    </pattern>
    <pattern id="{uid}-earth" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="1" x2="1" y1="0" y2="7" stroke="var(--ink-2)" />
    </pattern>
    <clipPath id="{uid}-plot"
      ><rect
        x={paper.left}
        y={paper.top}
        width={paper.right - paper.left}
        height={paper.bottom - paper.top}
      /></clipPath
    >
  </defs>
  <!-- The paper: 1, 2, 5 across, decades up. -->
  {#each marks as a (a)}
    <line x1={paper.x(a)} x2={paper.x(a)} y1={paper.top} y2={paper.bottom} stroke="var(--grid)" />
  {/each}
  {#each TIMES as [s, word] (s)}
    <line x1={paper.left} x2={paper.right} y1={paper.y(s)} y2={paper.y(s)} stroke="var(--grid)" />
    <text x={paper.left - 6} y={paper.y(s) + 4} text-anchor="end" class="fig axis">{word}</text>
  {/each}
  {#each marks.filter((a, i) => !narrow || String(a).startsWith('1') || i === 0) as a (a)}
    <text x={paper.x(a)} y={paper.bottom + 15} text-anchor="middle" class="fig axis" data-give
      >{ampsMark(a)}{a === 1000 ? ' kA' : a === paper.fromA ? ' A' : ''}</text
    >
  {/each}
  <g clip-path="url(#{uid}-plot)">
    {#each bands as b (b.fuse.run)}
      <path
        d={b.area}
        fill="url(#{uid}-{b.own ? 'own' : 'up'})"
        stroke="var(--ink-3)"
        stroke-width="0.8"
        data-band={b.fuse.run}
      />
      {#each b.beyond as d, i (i)}<path
          {d}
          fill="none"
          stroke="var(--ink-2)"
          stroke-width="0.9"
          stroke-dasharray="4 3"
        />{/each}
      <path d={b.middle} fill="none" stroke="var(--ink)" stroke-width="1.8" />
    {/each}
    {#each stairs as s (s.name)}
      <path
        d={s.d}
        fill="none"
        stroke={chart.run === 'main' ? 'var(--ink)' : 'var(--ink-3)'}
        stroke-width="1.1"
        stroke-dasharray={s.kind === 'bms' ? '5 3' : undefined}
      />
    {/each}
    {#each chart.both as f, i (i)}<path
        d={field(f)}
        fill="url(#{uid}-both)"
        stroke="var(--ink)"
        stroke-width="0.8"
      />{/each}
    {#each coppers as c (c.run)}
      {#if c.ampacityA}
        <path
          d="M{paper.x(c.fiveSecondsA)} {paper.y(5)}L{paper.x(c.ampacityA)} {paper.top + 22}"
          fill="none"
          stroke="var(--copper)"
          stroke-width="1.1"
          stroke-dasharray="2 3"
        />
        <path
          d="M{paper.x(c.ampacityA)} {paper.top + 22}V{paper.top}"
          stroke="var(--copper)"
          stroke-width={Math.min(5, c.thick)}
        />
      {/if}
      <path d={c.solid} fill="none" stroke="var(--copper-body)" stroke-width={c.thick + 2} />
      <path d={c.solid} fill="none" stroke="var(--copper)" stroke-width={c.thick} data-copper={c.run} />
    {/each}
    {#each chart.burns as f, i (i)}<path d={field(f)} fill="var(--ink)" data-testid="burns" />{/each}
    {#each bands as b (b.fuse.run)}
      {#if b.bar}<line
          x1={paper.x(b.fuse.breaksA)}
          x2={paper.x(b.fuse.breaksA)}
          y1={paper.y(b.bar.leastS)}
          y2={paper.y(b.bar.mostS)}
          stroke="var(--ink)"
          stroke-width="4"
        />{/if}
    {/each}
  </g>
  {#if wall !== null}
    <rect x={wall} y={paper.top} width="11" height={paper.bottom - paper.top} fill="url(#{uid}-earth)" />
    <line x1={wall} x2={wall} y1={paper.top} y2={paper.bottom} stroke="var(--ink)" stroke-width="2.2" />
    <text x={wall - 6} y={paper.top + 12} text-anchor="end" class="fig strong">{say(chart.shortA!, 'A')}</text>
    <text x={wall - 6} y={paper.top + 26} text-anchor="end" class="word" data-give>a short right at its fuse</text>
  {/if}
  {#if chart.mainShortA && chart.run !== 'main' && chart.shortA !== null && paper.x(chart.mainShortA) > wall! + 13}
    {@const x = paper.x(chart.mainShortA)}
    <line x1={x} x2={x} y1={paper.top} y2={paper.bottom} stroke="var(--ink-3)" />
    <text transform="translate({x + 12} {paper.top + 128}) rotate(-90)" class="word"
      ><tspan class="fig">{say(chart.mainShortA, 'A')}</tspan> at the main fuse</text
    >
  {/if}
  {#each chart.dots as d, i (i)}
    {@const y = d.seconds === null ? paper.top + 12 + 26 * (i % 2) : paper.y(d.seconds)}
    <circle cx={paper.x(d.amps)} cy={y} r="3" fill={d.pale ? 'var(--ink-3)' : 'var(--ink)'} />
    {@const name = cut(d.name, narrow ? 14 : 26)}
    {@const left = paper.x(d.amps) - 6 - 6.6 * (name.length + 9) > 4}
    <text x={paper.x(d.amps) + (left ? -6 : 6)} y={y + 4} text-anchor={left ? 'end' : 'start'} class="word" data-give
      >{name} <tspan class="fig">{say(d.amps, 'A')}</tspan></text
    >
  {/each}
  {#each stairs as s (s.name)}
    <text x={s.x - 4} y={paper.y(0.026)} text-anchor="end" class="word" data-give
      >{s.name}{s.kind === 'bms' ? `, ${say(s.amps, 'A')}` : ''}</text
    >
  {/each}
  {#each bands as b (b.fuse.run)}
    {@const at = b.label}
    <text
      x={b.own ? paper.x(b.fuse.points[0].amps) - 8 : paper.x(at.amps) + 10}
      y={b.own ? paper.y(at.mostS) + 8 : paper.y(at.mostS) - 4}
      text-anchor={b.own ? 'end' : 'start'}
      class="word"
      data-give><tspan class="fig strong">{nameOf(b.fuse.name)[0]}</tspan> {nameOf(b.fuse.name)[1]}</text
    >
    {#if b.bar && b.own}<text
        x={paper.x(b.fuse.breaksA) - 8}
        y={paper.y(b.bar.leastS) + 24}
        text-anchor="end"
        class="word"
        data-give>breaks no more than <tspan class="fig strong">{say(b.fuse.breaksA, 'A')}</tspan></text
      >{/if}
  {/each}
  {#each coppers as c (c.run)}
    <text
      x={paper.x(c.fiveSecondsA) + (paper.x(c.fiveSecondsA) > paper.right - 110 ? -8 : 8)}
      text-anchor={paper.x(c.fiveSecondsA) > paper.right - 110 ? 'end' : 'start'}
      y={paper.y(5) - 5}
      class="word"
      data-give
      style:fill="var(--copper-text, var(--ink-2))">{c.name} burns</text
    >
  {/each}
  {#if crossing}
    <circle
      cx={paper.x(crossing.amps)}
      cy={paper.y(crossing.s)}
      r="4"
      fill="var(--sheet)"
      stroke="var(--ink)"
      stroke-width="1.6"
    />
    <text x={paper.x(crossing.amps) - 6} y={paper.y(crossing.s) + 34} text-anchor="end" class="fig strong" data-give
      >{say(crossing.amps, 'A')}</text
    >
    <text x={paper.x(crossing.amps) - 6} y={paper.y(crossing.s) + 48} text-anchor="end" class="word" data-give
      >up to here the {say(chart.own!.ratingA, 'rating')} alone</text
    >
  {/if}
  {#if burnsAt && chart.copper}
    <text
      x={paper.x(burnsAt.amps) + 4}
      y={paper.y(burnsAt.toS ?? MOST_S) - 22}
      text-anchor="middle"
      class="word strong"
      data-give>{chart.copper.name} burns before a fuse opens</text
    >
  {/if}
  {#if !narrow}
    {#each hints as hint, i (i)}
      <text x={paper.left + 10} y={paper.bottom - 44 + 15 * i} class="word" data-give>{hint}</text>
    {/each}
  {/if}
  <line x1={paper.left} x2={paper.right} y1={paper.bottom} y2={paper.bottom} stroke="var(--ink)" />
  {#if along}
    {@const [first, last] = [chart.along[0], chart.along.at(-1)!]}
    <text x={paper.x(last.amps) - 8} y={paper.bottom + 40} text-anchor="end" class="word" data-give
      >{narrow
        ? 'along it'
        : `a short this far along ${chart.copper?.name ?? 'it'}, from its fuse, draws that much`}</text
    >
    <line
      x1={paper.x(last.amps)}
      x2={paper.x(first.amps)}
      y1={paper.bottom + 36}
      y2={paper.bottom + 36}
      stroke="var(--copper)"
      stroke-width={Math.min(9, Math.max(2, chart.copper ? diameterMm(chart.copper.areaMm2) : 2))}
    />
    {#each chart.along as p (p.metres)}
      <line
        x1={paper.x(p.amps)}
        x2={paper.x(p.amps)}
        y1={paper.bottom + 30}
        y2={paper.bottom + 42}
        stroke="var(--ink)"
      />
      {#if written.has(p)}<text
          x={paper.x(p.amps)}
          y={paper.bottom + 55}
          text-anchor="middle"
          class="fig axis"
          data-give
          >{session.units === 'imperial' ? say(p.metres, 'm', 'imperial') : p.metres}{session.units === 'metric' &&
          (p === first || p === last)
            ? ' m'
            : ''}</text
        >{/if}
    {/each}
  {/if}
  {#if probe}
    {@const x = paper.x(probe.amps)}
    <line x1={x} x2={x} y1={paper.top} y2={paper.bottom} stroke="var(--copper)" stroke-width="1.6" />
    <path d="M{x - 6} {paper.top - 8}H{x + 6}L{x} {paper.top + 2}Z" fill="var(--copper)" />
    {#if along && probe.metres !== null}<path
        d="M{x - 5} {paper.bottom + 47}H{x + 5}L{x} {paper.bottom + 39}Z"
        fill="var(--copper)"
      />{/if}
  {/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <rect
    bind:this={svg}
    x={paper.left}
    y={paper.top - 10}
    width={paper.right - paper.left}
    height={height - paper.top + 8}
    fill="transparent"
    class="hand"
    role="slider"
    tabindex="0"
    aria-label="a short of"
    aria-valuemin={Math.round(paper.fromA)}
    aria-valuemax={Math.round(chart.shortA ?? paper.toA)}
    aria-valuenow={Math.round(probe?.amps ?? 0)}
    aria-valuetext={probe ? `${say(probe.amps, 'A')}: ${probe.sentence}` : 'not known'}
    data-testid="probe"
    onpointerdown={down}
    onpointermove={(e) => dragging && to(e)}
    onpointerup={up}
    onkeydown={key}
  />
</Drawing>

<style>
  .axis {
    font-size: 12px;
  }
  .word {
    font-size: 12px;
    fill: var(--ink-2);
  }
  .word .fig {
    fill: var(--ink);
  }
  .strong {
    font-weight: 700;
    font-size: 14px;
    fill: var(--ink);
  }
  .word.strong {
    font-size: 12.5px;
  }
  .hand {
    cursor: ew-resize;
    touch-action: pan-y;
  }
</style>
