<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { cut, ticks } from '../../drawing/geometry'
  import { num, say } from '../../ui/quantity'

  /**
   * Watts against seconds: what inverter, bank, fuse and cable carry as lines, what the loads ask as areas from the left with the starts on
   * top; beneath, on the same axis, how long each would hold the worst of it.
   */
  let height = $state(300)
  let width = $state(900)
  const i = $derived(session.result!.inverter!)
  const v = $derived(session.result!.envelope!)
  const [left, top, from, to] = [92, 22, 0.01, 3600]
  const narrow = $derived(width < 560)
  const ROW = 16
  const held = $derived(v.askedW > 0 ? v.holds.length * ROW + 20 : 0)
  const bottom = $derived(height - 24 - held)
  const right = 16
  const most = $derived(
    Math.max(
      100,
      ...i.overload.map((p) => p.watts),
      ...i.demands.map((d) => d.watts),
      i.gives.continuousW ?? 0,
      Math.min(v.bankW ?? 0, (i.gives.continuousW ?? 0) * 2.4),
    ) * 1.14,
  )
  const x = (s: number) =>
    left + (Math.log(Math.min(to, Math.max(from, s)) / from) / Math.log(to / from)) * (width - left - right)
  const y = (w: number) => bottom - (Math.min(w, most * 1.5) / most) * (bottom - top)
  const steps = $derived.by(() => {
    let d = ''
    let last = from
    for (const p of i.overload) {
      const watts = Math.max(p.watts, i.gives.continuousW ?? 0)
      d += `${d ? 'V' : `M${x(last)} `}${y(watts)} H${x(p.seconds)} `
      last = p.seconds
    }
    return `${d}V${y(i.gives.continuousW ?? 0)} H${x(to)}`
  })
  /** What the inverter gives from one time to the next. */
  const spans = $derived(
    [...i.overload, { seconds: to, watts: i.gives.continuousW ?? 0 }].map((p, n, all) => ({
      from: n === 0 ? from : all[n - 1].seconds,
      to: p.seconds,
      watts: Math.max(p.watts, i.gives.continuousW ?? 0),
    })),
  )
  const line = (of: 'fuseW' | 'cableW') =>
    v.points
      .filter((p) => p[of] !== null)
      .map((p, n) => `${n === 0 ? 'M' : 'L'}${x(p.seconds)} ${y(p[of]!)}`)
      .join('')
  const bankLine = $derived(
    v.bankW === null
      ? ''
      : v.bankPeakW !== null && v.bankPeakSeconds !== null && v.bankPeakW > v.bankW
        ? `M${x(from)} ${y(v.bankPeakW)} H${x(v.bankPeakSeconds)} V${y(v.bankW)} H${x(to)}`
        : `M${x(from)} ${y(v.bankW)} H${x(to)}`,
  )
  /** What each lets through without end, written at the right where its line ends; the words keep clear of one another. */
  const ends = $derived.by(() => {
    const list = v.holds
      .map((h, index) => ({ ...h, index }))
      .filter((h) => h.continuousW !== null && h.continuousW < most && (!narrow || h.element === 'inverter'))
      .map((h) => {
        // A fuse bears its rating for hours; without end it is only trusted with less. Its words stand where its line ends.
        const at = h.element === 'fuse' ? (v.points.at(-1)?.fuseW ?? h.continuousW!) : h.continuousW!
        return { ...h, ty: y(at) + (h.element === 'inverter' ? 15 : -4) }
      })
      .sort((a, b) => b.ty - a.ty)
    for (let n = 1; n < list.length; n++) list[n].ty = Math.min(list[n].ty, list[n - 1].ty - 15)
    return list
  })
  const marks = [0.01, 0.1, 1, 10, 60, 600, 3600]

  // Bands lie on one another: the longest at the bottom, the start on top.
  const bands = $derived.by(() => {
    let floor = 0
    return v.stack.map((b) => {
      const bottomW = floor
      floor += b.watts
      return { ...b, bottomW, topW: floor }
    })
  })
  const others = $derived(
    i.demands.map((d, index) => ({ ...d, index, cx: x(d.seconds), cy: y(d.watts) })).sort((a, b) => a.watts - b.watts),
  )
  const labelled = $derived.by(() => {
    const kept: { d: (typeof others)[number]; ty: number }[] = []
    for (const d of others
      .filter((a) => !narrow || !a.holds)
      .sort((a, b) => Number(a.holds) - Number(b.holds) || b.watts - a.watts)) {
      const near = kept.find(
        (k) => (k.d.label === d.label && d.holds) || (Math.abs(k.d.cx - d.cx) < 210 && Math.abs(k.ty - d.cy) < 30),
      )
      if (!near) kept.push({ d, ty: d.cy })
    }
    return kept
  })
  /** Whether nothing is written there already. */
  function free(x1: number, x2: number, ty: number): boolean {
    return (
      ends.every((e) => x2 < width - 170 || Math.abs(e.ty - ty) > 13) &&
      labelled.every(({ d, ty: at }) => {
        const [a, b] = d.cx < width - 220 ? [d.cx, d.cx + 230] : [d.cx - 230, d.cx]
        return x2 < a || x1 > b || ty < at - 12 || ty > at + 32
      })
    )
  }
  const word = { inverter: 'inverter', bank: 'bank, by the real sharing', fuse: 'main fuse', cable: 'main cable' }
  const name = $derived(
    v.first
      ? `Watts against seconds: ${v.first.name} gives way first, at ${num(v.first.watts)} W for ${say(v.first.seconds, 's')}`
      : 'Watts against seconds: everything holds what the loads ask',
  )
</script>

<Drawing {name} bind:height fill floor={narrow ? 380 : 250} bind:width least={360}>
  <defs>
    <clipPath id="paper"><rect x={left} y={top - 8} width={width - left - right} height={bottom - top + 8} /></clipPath>
  </defs>
  {#each ticks(most, 4) as t (t)}
    <line x1={left} x2={width - right} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={left - 6} y={y(t) + 4} text-anchor="end" class="fig">{num(t)}</text>
  {/each}
  {#each marks as s (s)}
    <line x1={x(s)} x2={x(s)} y1={top} y2={height - 20} stroke="var(--grid)" />
    <text x={x(s)} y={height - 5} text-anchor={s === 3600 ? 'end' : 'middle'}
      >{s === 60 ? '1 min' : s === 3600 ? '1 h' : s === 600 ? '10 min' : say(s, 's')}</text
    >
  {/each}
  <text x={left - 6} y={top - 8} text-anchor="end">watts</text>
  <line x1={left} x2={width - right} y1={bottom} y2={bottom} stroke="var(--ink)" />
  <g clip-path="url(#paper)">
    {#each bands as b, n (n)}
      <rect
        x={left}
        y={y(b.topW)}
        width={Math.max(0, x(b.seconds) - left)}
        height={y(b.bottomW) - y(b.topW)}
        class={['band', b.isStart && 'start', n % 2 === 1 && 'odd']}
      />
      {#if y(b.bottomW) - y(b.topW) >= (narrow ? 30 : 13) && x(b.seconds) - left > 90}
        <text x={left + 6} y={(y(b.bottomW) + y(b.topW)) / 2 + 4} class="band-name"
          >{cut(b.name, 22)}{b.isStart ? ' starting' : ''}</text
        >
      {/if}
    {/each}
    {#each others.filter((d) => !d.holds) as d (d.index)}
      {#each spans.filter((s) => s.watts < d.watts && s.from < d.seconds) as s (s.from)}
        <rect
          x={x(s.from)}
          y={d.cy}
          width={Math.max(3, x(Math.min(s.to, d.seconds)) - x(s.from))}
          height={y(s.watts) - d.cy}
          class={['short', d.index !== i.firstToGive && 'lesser']}
        />
      {/each}
    {/each}
    <path d={line('cableW')} class="cable" />
    <path d={line('fuseW')} class="fuse" />
    <path d={bankLine} class="bank" />
    <path d={steps} fill="none" stroke="var(--ink)" stroke-width="2.5" />
  </g>
  {#each ends as end (end.element)}
    <FigText
      ptr="/envelope/holds/{end.index}/continuousW"
      unit="W"
      label="{end.name}, continuous"
      x={width - right - 4}
      y={Math.max(14, end.ty)}
      anchor="end"
      size={13}
      give
      after={narrow ? '' : `${end.element === 'fuse' ? 'continuous, ' : ''}${end.name.replace('the ', '')}`}
    />
  {/each}
  {#each i.overload as p, n (p.seconds)}
    {@const prev = n === 0 ? from : i.overload[n - 1].seconds}
    {#if !narrow && x(p.seconds) - x(prev) > 70 && free(x(p.seconds) - 100, x(p.seconds) - 6, y(p.watts) - 6)}
      <text x={x(p.seconds) - 6} y={y(p.watts) - 6} text-anchor="end" class="fig held-for" data-give
        >{num(p.watts)} W<tspan dx="4" class="plain">for {say(p.seconds, 's')}</tspan></text
      >
    {/if}
  {/each}
  {#each others as d (d.index)}
    <circle
      cx={d.cx}
      cy={d.cy}
      r="4.5"
      fill={d.holds ? 'var(--sheet)' : 'var(--ink)'}
      stroke={d.holds ? 'var(--ink)' : 'var(--sheet)'}
      stroke-width="1.5"
    />
  {/each}
  {#each labelled as { d, ty } (d.index)}
    {@const onRight = narrow ? d.cx < width / 2 : d.cx < width - 220}
    {@const tx = onRight ? d.cx + 9 : d.cx - 9}
    <g
      class="stop"
      role="button"
      tabindex="-1"
      data-stop
      data-demand={d.index}
      aria-label="{num(d.watts)} W for {say(d.seconds, 's')} {d.label}{d.holds
        ? ''
        : `: ${num(d.watts - d.givesW)} W over`}. Show its working"
      onclick={() => session.select(`/inverter/demands/${d.index}/givesW`)}
      onkeydown={() => {}}
    >
      <text
        x={tx}
        y={ty + (onRight ? 5 : 20)}
        text-anchor={onRight ? 'start' : 'end'}
        class="fig"
        style:font-size={d.holds ? '13px' : '16px'}
        >{num(d.watts)} W<tspan class="plain">{` for ${say(d.seconds, 's')} `}</tspan></text
      >
      <text x={tx} y={ty + (onRight ? 19 : 34)} text-anchor={onRight ? 'start' : 'end'} class="faint" data-give
        >{cut(d.label, narrow ? 18 : 34)}{d.holds ? '' : `: ${num(d.watts - d.givesW)} W over`}</text
      >
    </g>
  {/each}
  {#if held > 0}
    <text x={left - 6} y={bottom + 14} text-anchor="end" class="faint">holds</text>
    <text x={left + 2} y={bottom + 14} class="faint"
      >{num(v.askedW)} W{narrow
        ? ` for ${say(v.askedSeconds, 's')}`
        : `: how long each would hold it, of ${say(v.askedSeconds, 's')} needed`}</text
    >
    {#each v.holds as h, n (h.element)}
      {@const cy = bottom + 19 + n * ROW}
      <text x={left - 6} y={cy + 11} text-anchor="end" class={h.enough ? '' : 'gives'}
        >{narrow ? h.element : word[h.element].split(',')[0]}</text
      >
      <rect
        x={left}
        y={cy + 3}
        width={Math.max(
          2,
          (h.seconds === null ? width - right - 78 : Math.min(width - right - 78, x(h.seconds))) - left,
        )}
        height="9"
        class={['hold', h.element === 'cable' && 'hold-copper', !h.enough && 'hold-short']}
      />
      {#if h.seconds === null}
        <text x={width - right - 72} y={cy + 11}>continuously</text>
      {:else}
        <FigText
          ptr="/envelope/holds/{n}/seconds"
          unit="s"
          label="{h.name} holds {num(v.askedW)} W for"
          x={Math.min(width - right - (h.enough ? 74 : 130), Math.max(left + 8, x(h.seconds) + 6))}
          y={cy + 12}
          size={13}
          before={h.element === 'fuse' ? 'about' : ''}
          after={h.enough ? '' : h.seconds === 0 ? 'gives way at once' : 'gives way'}
        />
      {/if}
    {/each}
    <line
      x1={x(v.askedSeconds)}
      x2={x(v.askedSeconds)}
      y1={y(v.askedW)}
      y2={bottom + 19 + v.holds.length * ROW}
      stroke="var(--ink)"
      stroke-dasharray="2 3"
    />
  {/if}
</Drawing>

<style>
  .plain {
    font-family: 'Badger Digits', 'Badger Words', 'Badger Signs', sans-serif;
    font-stretch: 100%;
    font-weight: 400;
    font-size: 11.5px;
  }
  .faint {
    fill: var(--ink-2);
  }
  .stop {
    cursor: pointer;
  }
  .stop text,
  .held-for {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
  }
  .held-for {
    font-size: 13px;
  }
  .band {
    fill: var(--page);
    stroke: var(--hair);
  }
  .band.odd {
    fill: var(--grid);
  }
  .band.start {
    fill: var(--hair);
    stroke: var(--ink-3);
  }
  .band-name {
    font-size: 11.5px;
    pointer-events: none;
  }
  .short {
    fill: var(--ink);
  }
  .short.lesser {
    fill: var(--ink-2);
  }
  .cable,
  .fuse,
  .bank {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .cable {
    stroke: var(--copper);
    stroke-width: 3;
  }
  .bank {
    stroke-dasharray: 6 3;
  }
  .hold {
    fill: var(--ink-3);
  }
  .hold-copper {
    fill: var(--copper);
  }
  .hold-short {
    fill: var(--ink);
  }
  .gives {
    font-weight: 700;
  }
</style>
