<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { ticks } from '../../drawing/geometry'
  import { num, say } from '../../ui/quantity'

  /** Watts against seconds: what the inverter gives as a line, what the loads ask as areas from the left whose corner must stay below it. */
  let height = $state(260)
  let width = $state(900)
  const i = $derived(session.result!.inverter!)
  const [left, top, from, to] = [56, 26, 0.01, 3600]
  const bottom = $derived(height - 26)
  const narrow = $derived(width < 560)
  const most = $derived(
    Math.max(100, ...i.envelope.map((p) => p.watts), ...i.demands.map((d) => d.watts), i.availableContinuousW ?? 0) *
      1.12,
  )
  const x = (s: number) =>
    left + (Math.log(Math.min(to, Math.max(from, s)) / from) / Math.log(to / from)) * (width - left - 16)
  const y = (w: number) => bottom - (w / most) * (bottom - top)
  const steps = $derived.by(() => {
    let d = ''
    let last = from
    for (const p of i.envelope) {
      const watts = Math.max(p.watts, i.availableContinuousW ?? 0)
      d += `${d ? 'V' : `M${x(last)} `}${y(watts)} H${x(p.seconds)} `
      last = p.seconds
    }
    return `${d}V${y(i.availableContinuousW ?? 0)} H${x(to)}`
  })
  /** What it gives from one time to the next. */
  const spans = $derived(
    [...i.envelope, { seconds: to, watts: i.availableContinuousW ?? 0 }].map((p, n, all) => ({
      from: n === 0 ? from : all[n - 1].seconds,
      to: p.seconds,
      watts: Math.max(p.watts, i.availableContinuousW ?? 0),
    })),
  )
  const marks = [0.01, 0.1, 1, 10, 60, 600, 3600]
  // The gravest first; labels keep clear of one another.
  const asked = $derived(
    i.demands
      .map((d, index) => ({ ...d, index }))
      .sort((a, b) => a.watts - b.watts)
      .map((d) => ({ ...d, cx: x(d.seconds), cy: y(d.watts) })),
  )
  const labelled = $derived.by(() => {
    const kept: { d: (typeof asked)[number]; ty: number }[] = []
    for (const d of asked
      .filter((a) => !narrow || !a.holds)
      .sort((a, b) => Number(a.holds) - Number(b.holds) || b.watts - a.watts)) {
      const near = kept.find(
        (k) => (k.d.label === d.label && d.holds) || (Math.abs(k.d.cx - d.cx) < 210 && Math.abs(k.ty - d.cy) < 30),
      )
      if (!near) kept.push({ d, ty: d.cy })
    }
    return kept
  })
</script>

<Drawing
  name="Watts against seconds: what the inverter gives and what the loads ask"
  bind:height
  fill
  bind:width
  least={360}
>
  {#each ticks(most, 5) as t (t)}
    <line x1={left} x2={width - 16} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={left - 6} y={y(t) + 4} text-anchor="end" class="fig">{num(t)}</text>
  {/each}
  {#each marks as s (s)}
    <line x1={x(s)} x2={x(s)} y1={top} y2={bottom + 4} stroke="var(--grid)" />
    <text x={x(s)} y={bottom + 18} text-anchor={s === 3600 ? 'end' : 'middle'}
      >{s === 60 ? '1 min' : s === 3600 ? '1 h' : s === 600 ? '10 min' : say(s, 's')}</text
    >
  {/each}
  <text x={left - 6} y={top - 10} text-anchor="end">watts</text>
  {#each asked as d (d.index)}
    <rect
      x={left}
      y={d.cy}
      width={Math.max(0, d.cx - left)}
      height={bottom - d.cy}
      fill="var(--tint)"
      stroke="var(--copper-body)"
    />
  {/each}
  {#each asked.filter((d) => !d.holds) as d (d.index)}
    {#each spans.filter((s) => s.watts < d.watts && s.from < d.seconds) as s (s.from)}
      <rect
        x={x(s.from)}
        y={d.cy}
        width={Math.max(3, x(Math.min(s.to, d.seconds)) - x(s.from))}
        height={y(s.watts) - d.cy}
        fill="var(--ink)"
      />
    {/each}
  {/each}
  <path d={steps} fill="none" stroke="var(--ink)" stroke-width="2.5" />
  {#each i.envelope as p, n (p.seconds)}
    {@const prev = n === 0 ? from : i.envelope[n - 1].seconds}
    {#if !narrow && x(p.seconds) - x(prev) > 70}
      <text x={x(p.seconds) - 6} y={y(p.watts) - 6} text-anchor="end" class="fig" style:font-size="13px"
        >{num(p.watts)} W<tspan dx="4" class="plain">for {say(p.seconds, 's')}</tspan></text
      >
    {/if}
  {/each}
  {#if i.availableContinuousW}
    <FigText
      ptr="/inverter/availableContinuousW"
      unit="W"
      label="held without end"
      x={width - 20}
      y={y(i.availableContinuousW) + (narrow ? 40 : 18)}
      anchor="end"
      size={15}
      after="held"
    />
  {/if}
  {#each asked as d (d.index)}
    <circle
      cx={d.cx}
      cy={d.cy}
      r="4.5"
      fill={d.holds ? 'var(--copper)' : 'var(--ink)'}
      stroke="var(--sheet)"
      stroke-width="1.5"
    />
  {/each}
  {#each labelled as { d, ty } (d.index)}
    {@const right = narrow ? d.cx < width / 2 : d.cx < width - 220}
    {@const tx = right ? d.cx + 9 : d.cx - 9}
    <g
      class="stop"
      role="button"
      tabindex="-1"
      data-stop
      onclick={() => session.select(`/inverter/demands/${d.index}/givesW`)}
      onkeydown={() => {}}
    >
      <text
        x={tx}
        y={ty + (right ? 5 : 20)}
        text-anchor={right ? 'start' : 'end'}
        class="fig"
        style:font-size={d.holds ? '13px' : '16px'}
        >{num(d.watts)} W<tspan class="plain">{` for ${say(d.seconds, 's')} `}</tspan></text
      >
      <text x={tx} y={ty + (right ? 19 : 34)} text-anchor={right ? 'start' : 'end'} class="faint"
        >{d.label}{d.holds ? '' : `: ${num(d.watts - d.givesW)} W over`}</text
      >
    </g>
  {/each}
</Drawing>

<style>
  .plain {
    font-family: 'Badger Words', 'Badger Signs', sans-serif;
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
</style>
