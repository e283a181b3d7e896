<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { num } from '../../ui/quantity'
  import { putLimit, RULE } from './limit'

  /** The house rule's most current: a line one drags, or takes in hand with Enter. */
  interface Props {
    limit: number
    x: (amps: number) => number
    amps: (x: number) => number
    top: number
    bottom: number
    /** Room to the right of it for its words [px]. */
    room: number
  }
  let { limit, x, amps, top, bottom, room }: Props = $props()

  const STEP = 5
  let dragging = $state(false)
  let held = $state(false)
  let before: unknown = null
  let grip: SVGGElement

  const own = () => session.design!.houseRules.own
  const snap = (a: number) => Math.max(STEP, Math.round(a / STEP) * STEP)

  function down(e: PointerEvent) {
    before = own()
    dragging = true
    grip.setPointerCapture(e.pointerId)
    e.preventDefault()
  }
  function move(e: PointerEvent) {
    if (!dragging) return
    const paper = grip.ownerSVGElement!.getBoundingClientRect()
    putLimit(snap(amps(e.clientX - paper.left)))
  }
  function up(e: PointerEvent) {
    if (!dragging) return
    dragging = false
    grip.releasePointerCapture(e.pointerId)
    void session.commit()
  }
  function key(e: KeyboardEvent) {
    if (e.key === 'Enter' || e.key === ' ') {
      e.preventDefault()
      e.stopPropagation()
      held = !held
      if (held) before = own()
      else void session.commit()
      return
    }
    if (!held) return
    const step = STEP * (e.shiftKey ? 10 : 1)
    if (e.key === 'ArrowRight' || e.key === 'ArrowUp') putLimit(snap(limit + step))
    else if (e.key === 'ArrowLeft' || e.key === 'ArrowDown') putLimit(snap(limit - step))
    else if (e.key === 'Escape') {
      e.stopPropagation()
      session.edit({ path: '/houseRules/own', value: before })
      held = false
    } else return
    e.preventDefault()
    e.stopPropagation()
  }
</script>

<g
  bind:this={grip}
  class={['limit', (held || dragging) && 'held']}
  role="button"
  tabindex="-1"
  data-stop
  data-held={held ? '' : undefined}
  data-rule={RULE}
  aria-pressed={held}
  aria-label="house rule, {num(limit)} A: drag it. Most in the main cable. {held
    ? 'Arrows move it, Enter keeps it, Escape gives it back'
    : 'Enter takes it in hand'}"
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onkeydown={key}
>
  <rect x={x(limit) - 12} y={top - 20} width="24" height={bottom - top + 20} fill="transparent" />
  <line x1={x(limit)} x2={x(limit)} y1={top - 8} y2={bottom} />
  <path d="M{x(limit) - 6} {top - 16} h12 l-6 9 z" class="grip" />
  <text x={x(limit) + (room > 150 ? 10 : -10)} y={top - 8} text-anchor={room > 150 ? 'start' : 'end'}
    >house rule, {num(limit)} A: drag it</text
  >
</g>

<style>
  .limit {
    cursor: ew-resize;
    touch-action: none;
  }
  line {
    stroke: var(--copper);
    stroke-width: 1.5;
    stroke-dasharray: 5 3;
  }
  .held line {
    stroke-width: 3;
    stroke-dasharray: none;
  }
  .grip {
    fill: var(--copper);
  }
  text {
    fill: var(--copper-text);
    font-weight: 650;
  }
</style>
