<script lang="ts">
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { clock } from '../../ui/quantity'
  import type { DayAxis } from './axis'
  import { added, lengthOf, moved, resized, stretches } from './windows'
  import type { Windows } from './windows'

  /**
   * When a load runs: bars over the day's hours, dragged, stretched at their ends, drawn on empty paper; by keyboard taken in hand with
   * Enter. A load by hours has no time of its own: a hollow bar, broken unless it is the whole day.
   */
  interface Props {
    load: Load
    index: number
    axis: DayAxis
    /** It rests in the season shown. */
    resting?: boolean
    height?: number
  }
  let { load, index, axis, resting = false, height = 22 }: Props = $props()

  const GRIP = 7
  const TOUCH = 12
  /** Width of the times written beside a bar in hand. */
  const TOLD = 78
  const name = $derived(load.name || 'New load')
  const windows = $derived(load.windows ?? [])
  let inHand = $state<number | null>(null)
  let drag = $state.raw<Drag | null>(null)
  let paper: SVGSVGElement

  interface Drag {
    what: 'move' | 'start' | 'end' | 'draw'
    index: number
    from: number
    grab: number
    before: { windows: Windows | null; hours: number | null }
  }

  /** Left edge of the paper, measured once a drag: the figures that follow it would force a layout with every move. */
  let edge = 0
  const inside = (e: MouseEvent) => e.clientX - edge

  function put(next: Windows | null, commit = false) {
    if (!next) return
    session.edit(
      [
        { path: `~/demand/loads/${index}/windows`, value: next },
        { path: `~/demand/loads/${index}/hours`, value: null },
      ],
      commit,
    )
  }

  function back(before: Drag['before']) {
    session.edit([
      { path: `~/demand/loads/${index}/windows`, value: before.windows },
      { path: `~/demand/loads/${index}/hours`, value: before.hours },
    ])
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
    const before = { windows: load.windows, hours: load.hours }
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
      const next = added(drag.before.windows ?? [], drag.from, axis.snap(hour))
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
    if (drag) back(drag.before)
    drag = null
  }

  let held: Drag['before'] = { windows: null, hours: null }

  function key(e: KeyboardEvent, i: number) {
    if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault()
      const rest = windows.filter((_, n) => n !== i)
      if (rest.length > 0) put(rest, true)
      else
        session.edit(
          [
            { path: `~/demand/loads/${index}/windows`, value: null },
            { path: `~/demand/loads/${index}/hours`, value: Number(lengthOf(windows[i]).toFixed(6)) },
          ],
          true,
        )
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
        held = { windows: load.windows, hours: load.hours }
        inHand = i
      }
      return
    }
    if (inHand !== i) return
    const step = axis.step(windows[i][0]) * (e.shiftKey ? 10 : 1)
    const [from, to] = windows[i]
    if (e.key === 'Escape') {
      e.stopPropagation()
      back(held)
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
  data-strip={index}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={cancel}
>
  {#each axis.ticks() as h (h)}
    <line x1={axis.x(h)} x2={axis.x(h)} y1="0" y2={height} stroke="var(--grid)" />
  {/each}
  {#if !load.windows && load.hours}
    <rect
      x="0.5"
      y={height / 2 - 3}
      width={axis.width - 1}
      height="6"
      fill="none"
      stroke={resting ? 'var(--hair)' : 'var(--ink-3)'}
      stroke-dasharray={load.hours < 24 ? '4 3' : undefined}
    />
  {/if}
  {#each windows as w, i (i)}
    <g
      role="button"
      tabindex="-1"
      data-stop
      data-bar="{index}/{i}"
      data-held={inHand === i ? '' : undefined}
      aria-pressed={inHand === i}
      aria-label="{name}, {clock(w[0])} to {clock(w[1])}. {inHand === i
        ? 'Left and right move it, up and down put its end, Enter keeps it, Escape gives it back'
        : 'Enter takes it in hand, Delete removes it'}"
      class={['bar', inHand === i && 'held', load.kind !== 'ac' && 'hatched', resting && 'resting']}
      onkeydown={(e) => key(e, i)}
    >
      {#each stretches(w) as [from, to] (from)}
        <rect x={axis.x(from)} y="5" width={Math.max(2, axis.x(to) - axis.x(from))} height={bar} />
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
  .hatched .grips {
    stroke: var(--ink-2);
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
