<script lang="ts">
  import { num } from '../ui/quantity'
  import Drawing from '../drawing/Drawing.svelte'
  import { FORTNIGHT, year } from './year.svelte'

  /** A column a day: its lowest charge, black where it was dark; over it what was refused. The frame is what is looked at closely. */
  let width = $state(900)
  let paper = $state<SVGGElement>()
  const height = 104
  const [top, bottom] = [30, 84]
  const left = 62
  const right = $derived(width - 8)
  const total = $derived(Math.max(1, year.intro?.days || 365))
  const step = $derived((right - left) / total)
  const x = (day: number) => left + day * step
  const most = $derived(Math.max(1, ...year.days.map((d) => d.refusedWh)))
  const refused = $derived(
    year.days.map((d, i) => `${i ? 'L' : 'M'}${x(i)} ${top - 4 - (d.refusedWh / most) * 20}H${x(i + 1)}`).join(''),
  )
  const bars = $derived(
    year.days
      .map((d, i) => (d.darkH > 0 ? '' : `M${x(i + 0.5)} ${bottom}V${bottom - d.lowestSoc * (bottom - top)}`))
      .join(''),
  )
  const dark = $derived(year.days.map((d, i) => (d.darkH > 0 ? `M${x(i + 0.5)} ${bottom}V${top}` : '')).join(''))
  const darkDays = $derived(year.days.filter((d) => d.darkH > 0).length)
  const firsts = $derived(
    Array.from({ length: total }, (_, d) => d).filter((d) => d === 0 || year.calendar.isFirstOfMonth(d)),
  )
  let held = false
  function to(e: PointerEvent) {
    const box = paper!.ownerSVGElement!.getBoundingClientRect()
    year.look((e.clientX - box.left - left) / step - FORTNIGHT / 2)
  }
  function key(e: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowLeft: -1, PageDown: 14, PageUp: -14 }[e.key]
    if (!by) return
    e.preventDefault()
    e.stopPropagation()
    year.look(year.frame + by)
  }
</script>

<Drawing name="The year, a column a day" bind:width {height}>
  <g bind:this={paper}>
    <text x="0" y={top - 8} class="row">refused</text>
    <text x="0" y={(top + bottom) / 2} class="row">day’s</text>
    <text x="0" y={(top + bottom) / 2 + 12} class="row">lowest</text>
    <path d={refused} fill="none" stroke="var(--ink-2)" />
    <path d={bars} stroke="var(--ink-3)" stroke-width={Math.max(0.8, step * 0.75)} fill="none" />
    <path d={dark} stroke="var(--ink)" stroke-width={Math.max(1.5, step)} fill="none" data-dark-days={darkDays} />
    <line x1={left} x2={right} y1={bottom} y2={bottom} stroke="var(--ink)" />
    {#each firsts as d, i (d)}
      <line x1={x(d)} x2={x(d)} y1={bottom} y2={bottom + 5} stroke="var(--ink)" />
      {#if width > 520 || i % 3 === 0}
        <text x={x(d)} y={height - 4} class="axis" text-anchor={i === 0 ? 'start' : 'middle'} data-give
          >{year.calendar.month(d)}{i === 0 || year.calendar.month(d) === 'Jan'
            ? ` ${year.calendar.year(d)}`
            : ''}</text
        >
      {/if}
    {/each}
    {#if darkDays > 0}
      <text x={right} y="11" text-anchor="end" class="axis" data-give
        ><tspan class="fig">{num(darkDays)}</tspan> dark {darkDays === 1 ? 'day' : 'days'}</text
      >
    {/if}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <g
      class="frame"
      data-stop
      data-testid="frame"
      tabindex="-1"
      role="slider"
      aria-label="the two weeks above"
      aria-valuemin="0"
      aria-valuemax={total - FORTNIGHT}
      aria-valuenow={year.frame}
      aria-valuetext="from {year.calendar.date(year.frame)}"
      onkeydown={key}
      onpointerdown={(e) => {
        ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
        held = true
        to(e)
      }}
      onpointermove={(e) => held && to(e)}
      onpointerup={() => (held = false)}
    >
      <rect x={left} y="0" width={right - left} height={bottom} fill="transparent" />
      <rect
        x={x(year.frame)}
        y={top - 24}
        width={step * FORTNIGHT}
        height={bottom - top + 27}
        fill="none"
        stroke="var(--copper)"
        stroke-width="2"
      />
    </g>
  </g>
</Drawing>

<style>
  .row {
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .axis {
    font-size: 11px;
  }
  .frame {
    cursor: ew-resize;
    touch-action: none;
  }
</style>
