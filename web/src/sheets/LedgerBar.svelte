<script lang="ts">
  import type { LedgerRow } from '../api/client'
  import { num } from '../ui/quantity'
  import { furthestOf, STOPS, topOf, wholeOf, WORDS } from './ledger'
  import { sheets } from './sheets.svelte'

  /** A bar that grows over five stops; a thinner tail is a part of the quantity. */
  interface Props {
    row: LedgerRow
    /** The stop that is asked for next. */
    asked: number | null
  }
  let { row, asked }: Props = $props()

  const PAD = 8
  const top = $derived(topOf(row))
  const whole = $derived(wholeOf(row))
  const furthest = $derived(furthestOf(row))
  let dragged = $state<number | null>(null)
  let track = $state<HTMLElement>()
  const end = $derived(dragged ?? whole)
  const tail = $derived(dragged === null && furthest > whole ? furthest : null)
  let width = $state(130)
  const share = (stop: number) => PAD + ((width - 2 * PAD) * stop) / 4
  const said = $derived(
    tail === null ? WORDS[whole] : `${num(row.reached[STOPS[tail - 1]])} of ${num(row.part.count)} ${WORDS[tail]}`,
  )

  function at(e: PointerEvent) {
    const { left } = track!.getBoundingClientRect()
    return Math.min(top, Math.max(0, Math.round(((e.clientX - left - PAD) / (width - 2 * PAD)) * 4)))
  }
  function down(e: PointerEvent) {
    if (row.gone) return
    track!.setPointerCapture(e.pointerId)
    dragged = at(e)
  }
  function up(e: PointerEvent) {
    if (dragged === null) return
    const stop = at(e)
    dragged = null
    if (stop !== whole || tail !== null) sheets.move(row, stop)
  }
  function key(e: KeyboardEvent) {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key]
    if (!step || row.gone) return
    e.preventDefault()
    const stop = Math.min(top, Math.max(0, whole + step))
    if (stop !== whole) sheets.move(row, stop)
  }
</script>

<div
  bind:this={track}
  class={['track', row.kind === 'copper' && 'copper']}
  role="slider"
  tabindex="0"
  aria-label="{row.part.tag} {row.part.name}"
  aria-valuemin="0"
  aria-valuemax={top}
  aria-valuenow={whole}
  aria-valuetext={said}
  data-bar={row.part.key}
  data-stop={WORDS[whole]}
  title={said}
  onpointerdown={down}
  onpointermove={(e) => dragged !== null && (dragged = at(e))}
  onpointerup={up}
  onpointercancel={() => (dragged = null)}
  onkeydown={key}
>
  <svg aria-hidden="true" width="100%" height="24" bind:clientWidth={width}>
    <line x1={PAD} x2={share(top)} y1="12" y2="12" class="way" />
    {#each Array.from({ length: top + 1 }, (_, n) => n) as n (n)}<line
        x1={share(n)}
        x2={share(n)}
        y1="8"
        y2="16"
        class="way"
      />{/each}
    {#if tail !== null}<line x1={share(end)} x2={share(tail)} y1="12" y2="12" class="tail" />{/if}
    {#if end > 0}<line x1={PAD} x2={share(end)} y1="12" y2="12" class="bar" /><line
        x1={share(end)}
        x2={share(end)}
        y1="6"
        y2="18"
        class="end"
      />{/if}
  </svg>
  {#if asked !== null && asked > whole && asked <= top}<span class="asked" style:left="{share(asked)}px" data-asked
    ></span>{/if}
  <span class="phone">{said}</span>
</div>

<style>
  .track {
    position: relative;
    height: 24px;
    cursor: pointer;
    touch-action: pan-y;
    --bar: var(--ink);
  }
  .copper {
    --bar: var(--copper);
  }
  .way {
    stroke: var(--hair);
    stroke-width: 1;
  }
  .bar {
    stroke: var(--bar);
    stroke-width: 4;
  }
  .tail {
    stroke: var(--bar);
    stroke-width: 1.6;
  }
  .end {
    stroke: var(--bar);
    stroke-width: 5;
  }
  .asked {
    position: absolute;
    top: 6px;
    width: 12px;
    height: 12px;
    margin-left: -6px;
    border: 1.6px solid var(--ink);
    background: var(--sheet);
  }
  .phone {
    display: none;
  }
  @media (max-width: 939px) {
    .track {
      height: 28px;
      padding-right: 96px;
    }
    .phone {
      display: block;
      position: absolute;
      right: 0;
      top: 4px;
      font-size: 12.5px;
      color: var(--ink-2);
    }
  }
</style>
