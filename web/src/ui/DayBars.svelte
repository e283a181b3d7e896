<script lang="ts">
  import type { Change } from '../api/client'
  import { session } from '../app/session.svelte'
  import type { DayAxis } from './dayAxis'
  import { clock } from './quantity'
  import { added, moved, resized, stretches } from './dayWindows'
  import type { Windows } from './dayWindows'

  /**
   * Times of the day as bars over its hours, dragged, stretched at their ends, drawn on empty paper; by keyboard taken in hand with Enter.
   * What has hours but no times is a hollow bar, broken unless it is the whole day.
   */
  interface Props {
    name: string
    /** What the bars' marks are found by. */
    id: string | number
    windows: Windows
    axis: DayAxis
    /** Hours a day of what has no times. */
    hours?: number | null
    /** How the bars are filled: dense, hatched, upright or level lines. */
    fill?: 'dense' | 'hatched' | 'upright' | 'level'
    /** It rests in the season shown. */
    resting?: boolean
    height?: number
    /** Changes that put these times. */
    changes: (windows: Windows) => Change[]
    /** Changes that take the last bar away. */
    emptied: (last: number[]) => Change[]
    /** Changes that bring back what stands now. */
    snapshot: () => Change[]
  }
  let {
    name,
    id,
    windows,
    axis,
    hours = null,
    fill = 'dense',
    resting = false,
    height = 22,
    changes,
    emptied,
    snapshot,
  }: Props = $props()

  const uid = $props.id()
  const GRIP = 7
  const TOUCH = 12
  /** Width of the times written beside a bar in hand. */
  const TOLD = 78
  let inHand = $state<number | null>(null)
  let drag = $state.raw<Drag | null>(null)
  let paper: SVGSVGElement

  interface Drag {
    what: 'move' | 'start' | 'end' | 'draw'
    index: number
    from: number
    grab: number
    /** The times, and the changes that bring them back. */
    before: { windows: Windows; back: Change[] }
  }

  /** Left edge of the paper, measured once a drag: the figures that follow it would force a layout with every move. */
  let edge = 0
  const inside = (e: MouseEvent) => e.clientX - edge

  function put(next: Windows | null, commit = false) {
    if (next) session.edit(changes(next), commit, drag !== null)
  }

  /** The bar under a place, or the nearest within a finger's reach, and which part of it. */
  function hit(x: number): { index: number; what: 'move' | 'start' | 'end' } | null {
    let best: { index: number; what: 'move' | 'start' | 'end' } | null = null
    let nearest = TOUCH
    for (const [i, w] of windows.entries())
      for (const [from, to] of stretches(w)) {
        const [a, b] = [axis.x(from), axis.x(to)]
        const off = x < a ? a - x : x > b ? x - b : 0
        if (off > nearest || (best && off === nearest)) continue
        const wide = b - a > 4 * GRIP
        const atStart = from === w[0] && (wide ? x < a + GRIP : x < a - 3)
        const atEnd = to === (w[1] === 0 ? 24 : w[1]) && (wide ? x > b - GRIP : x > b + 3)
        nearest = off
        best = { index: i, what: atStart ? 'start' : atEnd ? 'end' : 'move' }
      }
    return best
  }

  function down(e: PointerEvent) {
    if (e.button !== 0) return
    edge = paper.getBoundingClientRect().left
    const x = inside(e)
    const found = hit(x)
    const hour = axis.hour(x)
    const before = { windows, back: snapshot() }
    drag = found
      ? { ...found, from: hour, grab: hour - windows[found.index][found.what === 'end' ? 1 : 0], before }
      : { what: 'draw', index: -1, from: axis.snap(hour), grab: 0, before }
    paper.setPointerCapture(e.pointerId)
    e.preventDefault()
  }

  function move(e: PointerEvent) {
    if (!drag) return
    const hour = axis.hour(inside(e))
    if (drag.what === 'draw') {
      const next = added(drag.before.windows, drag.from, axis.snap(hour))
      if (next) put(next)
    } else if (drag.what === 'move') put(moved(windows, drag.index, axis.snap(hour - drag.grab)))
    else put(resized(windows, drag.index, drag.what, axis.snap(hour - drag.grab)))
  }

  function up(e: PointerEvent) {
    if (!drag) return
    paper.releasePointerCapture(e.pointerId)
    drag = null
    void session.commit()
  }

  function cancel() {
    if (drag) session.edit(drag.before.back, true)
    drag = null
  }

  let held: Change[] = []

  function key(e: KeyboardEvent, i: number) {
    if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault()
      const rest = windows.filter((_, n) => n !== i)
      if (rest.length > 0) put(rest, true)
      else session.edit(emptied(windows[i]), true)
      inHand = null
      return
    }
    if (e.key === 'Enter' || e.key === ' ') {
      e.preventDefault()
      e.stopPropagation()
      if (inHand === i) {
        inHand = null
        void session.commit()
      } else {
        held = snapshot()
        inHand = i
      }
      return
    }
    if (inHand !== i) return
    const step = axis.step(windows[i][0]) * (e.shiftKey ? 10 : 1)
    const [from, to] = windows[i]
    if (e.key === 'Escape') {
      e.stopPropagation()
      session.edit(held)
      inHand = null
    } else if (e.key === 'ArrowRight') put(moved(windows, i, from + step))
    else if (e.key === 'ArrowLeft') put(moved(windows, i, from - step))
    else if (e.key === 'ArrowUp') put(resized(windows, i, 'end', to + step))
    else if (e.key === 'ArrowDown') put(resized(windows, i, 'end', to - step))
    else return
    e.preventDefault()
    e.stopPropagation()
  }

  const active = $derived(drag && drag.index >= 0 ? drag.index : inHand)
  const told = $derived(active !== null && windows[active] ? windows[active] : null)
  const bar = $derived(height - 10)
</script>

<!-- The bars inside are the parts one reaches by keyboard; the paper itself takes the pointer. -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<svg
  bind:this={paper}
  width={axis.width}
  {height}
  class={['strip', drag && 'dragging']}
  data-strip={id}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={cancel}
>
  {#if fill === 'upright' || fill === 'level'}
    <defs>
      <pattern
        id="strip-{fill}-{uid}"
        width="4"
        height="4"
        patternUnits="userSpaceOnUse"
        patternTransform={fill === 'level' ? 'rotate(90)' : undefined}
      >
        <rect width="4" height="4" fill="var(--sheet)" /><line x1="1" x2="1" y1="0" y2="4" stroke="var(--ink)" />
      </pattern>
    </defs>
  {/if}
  {#each axis.ticks() as h (h)}
    <line x1={axis.x(h)} x2={axis.x(h)} y1="0" y2={height} stroke="var(--grid)" />
  {/each}
  {#if windows.length === 0 && hours}
    <rect
      x="0.5"
      y={height / 2 - 3}
      width={axis.width - 1}
      height="6"
      fill="none"
      stroke={resting ? 'var(--hair)' : 'var(--ink-3)'}
      stroke-dasharray={hours < 24 ? '4 3' : undefined}
    />
  {/if}
  {#each windows as w, i (i)}
    <g
      role="button"
      tabindex="-1"
      data-stop
      data-bar="{id}/{i}"
      data-held={inHand === i ? '' : undefined}
      aria-pressed={inHand === i}
      aria-label="{name}, {clock(w[0])} to {clock(w[1])}. {inHand === i
        ? 'Left and right move it, up and down put its end, Enter keeps it, Escape gives it back'
        : 'Enter takes it in hand, Delete removes it'}"
      class={['bar', fill, inHand === i && 'held', resting && 'resting']}
      onkeydown={(e) => key(e, i)}
    >
      {#each stretches(w) as [from, to] (from)}
        <rect
          x={axis.x(from)}
          y="5"
          width={Math.max(2, axis.x(to) - axis.x(from))}
          height={bar}
          style:fill={fill === 'upright' || fill === 'level' ? `url(#strip-${fill}-${uid})` : undefined}
        />
        {#if axis.x(to) - axis.x(from) > 4 * GRIP}
          <path
            d="M{axis.x(from) + 3.5} 8 v{bar - 6} M{axis.x(to) - 3.5} 8 v{bar - 6}"
            class="grips"
            pointer-events="none"
          />
        {/if}
      {/each}
    </g>
  {/each}
  {#if told}
    {@const past = axis.x(told[1] > told[0] ? told[1] : 24) + 5}
    {@const at = past + TOLD > axis.width ? Math.max(0, axis.x(told[0]) - TOLD - 5) : past}
    <g pointer-events="none">
      <rect x={at} y={height / 2 - 9} width={TOLD} height="18" fill="var(--sheet)" stroke="var(--ink-3)" />
      <text x={at + TOLD / 2} y={height / 2 + 4.5} text-anchor="middle" class="fig told"
        >{clock(told[0])}–{clock(told[1])}</text
      >
    </g>
  {/if}
</svg>

<style>
  .strip {
    display: block;
    cursor: crosshair;
    touch-action: pan-y;
  }
  .bar {
    cursor: grab;
  }
  .dragging,
  .dragging .bar {
    cursor: grabbing;
  }
  .bar rect {
    fill: var(--ink-2);
    stroke: var(--ink);
  }
  .bar.hatched rect {
    fill: var(--hair);
  }
  .bar.resting rect {
    fill: none;
    stroke: var(--hair);
  }
  .bar.held rect {
    stroke: var(--copper);
    stroke-width: 2.5;
  }
  .grips {
    stroke: var(--sheet);
    fill: none;
  }
  .hatched .grips,
  .upright .grips,
  .level .grips {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .resting .grips {
    display: none;
  }
  .told {
    font-size: 13px;
  }
  g:focus-visible {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
</style>
