<script lang="ts">
  import type { LogView } from '../api/client'
  import Drawing from '../drawing/Drawing.svelte'
  import { num } from '../ui/quantity'
  import { dayOf, long, numberOf, short } from './days'

  /** The lowest charge of every day there is; the frame is what is drawn above, and is dragged. */
  interface Props {
    view: LogView
    onlook: (from: string, days: number) => void
  }
  let { view, onlook }: Props = $props()
  let width = $state(900)
  let svg = $state<SVGGElement>()
  const left = 62
  const right = $derived(width - 10)
  const TOP = 18
  const TALL = 34
  const height = TOP + TALL + 18

  const first = $derived(view.mornings[0]?.day ?? view.frame.from)
  const last = $derived(view.mornings.at(-1)?.day ?? view.frame.from)
  const count = $derived(Math.max(view.frame.days, numberOf(last) - numberOf(first) + 1))
  const wide = $derived((right - left) / count)
  const x = (day: string) => left + (numberOf(day) - numberOf(first)) * wide
  const worst = $derived(
    view.mornings.reduce<(typeof view.mornings)[number] | null>(
      (a, m) => (a && a.lowestSoc <= m.lowestSoc ? a : m),
      null,
    ),
  )

  /** What is in hand: the frame, or an end of it, with where it is now. */
  let held = $state<{ what: 'all' | 'from' | 'to'; at: number; from: number; days: number } | null>(null)
  const frame = $derived(
    held
      ? { from: dayOf(numberOf(first) + held.from), days: held.days }
      : { from: view.frame.from, days: view.frame.days },
  )
  const dayAt = (e: PointerEvent) => {
    const box = svg!.ownerSVGElement!.getBoundingClientRect()
    return (e.clientX - box.left - left) / wide
  }
  function take(e: PointerEvent, what: 'all' | 'from' | 'to') {
    ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    held = { what, at: dayAt(e), from: numberOf(view.frame.from) - numberOf(first), days: view.frame.days }
  }
  function move(e: PointerEvent) {
    if (!held) return
    const by = Math.round(dayAt(e) - held.at)
    const was = numberOf(view.frame.from) - numberOf(first)
    if (held.what === 'all') held.from = Math.max(0, Math.min(count - held.days, was + by))
    else if (held.what === 'from') {
      const from = Math.max(0, Math.min(was + view.frame.days - 1, was + by))
      held = { ...held, from, days: was + view.frame.days - from }
    } else held.days = Math.max(1, Math.min(count - was, view.frame.days + by))
  }
  function leave() {
    if (held && (held.days !== view.frame.days || dayOf(numberOf(first) + held.from) !== view.frame.from))
      onlook(dayOf(numberOf(first) + held.from), held.days)
    held = null
  }
  function key(e: KeyboardEvent) {
    const step = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0
    const grow = e.key === '+' ? 1 : e.key === '-' ? -1 : 0
    if (!step && !grow) return
    e.preventDefault()
    const from = Math.max(0, numberOf(view.frame.from) - numberOf(first) + step * view.frame.days)
    onlook(dayOf(numberOf(first) + Math.min(from, count - 1)), view.frame.days + grow)
  }
  /** Pressed beside the frame, it comes there. */
  function to(e: PointerEvent) {
    const from = Math.max(0, Math.min(count - view.frame.days, Math.floor(dayAt(e) - view.frame.days / 2)))
    onlook(dayOf(numberOf(first) + from), view.frame.days)
  }
</script>

<Drawing name="Lowest charge of each day" bind:width {height}>
  <g bind:this={svg}>
    <text x={left - 6} y={TOP + TALL - 4} text-anchor="end" class="small">mornings</text>
    <rect
      x={left}
      y={TOP}
      width={right - left}
      height={TALL}
      fill="transparent"
      role="presentation"
      onpointerdown={to}
    />
    {#each view.mornings as m (m.day)}
      <rect
        x={x(m.day) + (wide > 3 ? 1 : 0)}
        y={TOP + TALL - Math.max(1, m.lowestSoc * TALL)}
        width={Math.max(0.8, wide - (wide > 3 ? 2 : 0))}
        height={Math.max(1, m.lowestSoc * TALL)}
        fill={m.lowestSoc < view.lowSoc ? 'var(--ink)' : 'var(--ink-3)'}
        opacity={m.lowestSoc < view.lowSoc ? 1 : 0.55}
        pointer-events="none"
      />
    {/each}
    <line x1={left} x2={right} y1={TOP + TALL} y2={TOP + TALL} stroke="var(--ink)" />
    {#if worst && worst.lowestSoc < view.lowSoc}
      <text
        x={Math.max(left + 40, Math.min(right - 40, x(worst.day) + wide / 2))}
        y="12"
        text-anchor="middle"
        class="word"
        data-give>{num(worst.lowestSoc * 100)} %, {short(worst.day)}</text
      >
    {/if}
    <text x={left} y={height - 4} class="small">{long(first)}</text>
    {#if right - left > 420}
      <text x={(left + right) / 2} y={height - 4} text-anchor="middle" class="small"
        >lowest charge of each day; black under {num(view.lowSoc * 100)} %</text
      >
    {/if}
    <text x={right} y={height - 4} text-anchor="end" class="small">{long(dayOf(numberOf(first) + count - 1))}</text>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <rect
      class="frame"
      data-stop
      data-frame
      tabindex="-1"
      role="slider"
      aria-label="days looked at"
      aria-valuenow={numberOf(frame.from)}
      aria-valuetext="{frame.days} days from {long(frame.from)}"
      x={x(frame.from)}
      y={TOP - 4}
      width={Math.max(6, frame.days * wide)}
      height={TALL + 8}
      fill="transparent"
      stroke="var(--copper)"
      stroke-width="1.6"
      onpointerdown={(e) => take(e, 'all')}
      onpointermove={move}
      onpointerup={leave}
      onkeydown={key}
    />
    {#each ['from', 'to'] as const as end (end)}
      <rect
        class="end"
        data-end={end}
        x={x(frame.from) + (end === 'to' ? Math.max(6, frame.days * wide) : 0) - 6}
        y={TOP - 4}
        width="12"
        height={TALL + 8}
        fill="transparent"
        role="presentation"
        onpointerdown={(e) => take(e, end)}
        onpointermove={move}
        onpointerup={leave}
      />
    {/each}
  </g>
</Drawing>

<style>
  .small {
    font-size: 11px;
  }
  .word {
    font-size: 11.5px;
    font-weight: 700;
  }
  .frame {
    cursor: grab;
    touch-action: none;
  }
  .end {
    cursor: ew-resize;
    touch-action: none;
  }
</style>
