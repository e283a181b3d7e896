<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Copper from '../../drawing/Copper.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { diameterMm, step125 } from '../../drawing/geometry'
  import { say, stringName } from '../../ui/quantity'
  import { metres, put, roundM } from './hand.svelte'
  import type { RunInHand } from './hand.svelte'
  import { poles } from './loop'
  import type { Column, Part } from './loop'
  import Wedge from './Wedge.svelte'

  /** Both poles of the run with what sits on them, each part to be dragged along its cable; the metres beneath; the volts between. */
  interface Props {
    view: RunInHand
    columns: (Column & { x1: number; x2: number })[]
    left: number
    post: number
    end: number
    top: number
    height: number
    narrow: boolean
  }
  let { view, columns, left, post, end, top, height, narrow }: Props = $props()
  const e = $derived(session.result!)
  const n = $derived(e.network)
  const r = $derived(view.run)
  const both = $derived(poles(e, view))
  const plus = $derived(top + 34)
  const minus = $derived(height - 22)
  const thick = $derived(
    r.cable.areaMm2
      ? diameterMm(r.cable.areaMm2) * step125(16 / (diameterMm(r.cable.areaMm2) * r.cable.conductors))
      : 3,
  )
  const pxPerMm = $derived(r.cable.areaMm2 ? thick / diameterMm(r.cable.areaMm2) : 1)
  const share = $derived(r.carries.ampacityA ? r.designA / r.carries.ampacityA : 0)
  const inside = $derived(columns.slice(0, -1))

  // While a part is dragged the metres keep their scale.
  let drag = $state.raw<{ part: Part; fromX: number; pxPerM: number; span: number } | null>(null)
  const span = $derived(Math.max(drag?.span ?? 0, r.laid.lengthM))
  const pxPerM = $derived((end - post) / span)
  /** Parts keep room for their squares where the metres between them are few. */
  const BOX = 27
  function places(parts: Part[]): number[] {
    const xs: number[] = []
    for (const [i, p] of parts.entries()) {
      const own = post + p.atM * pxPerM
      xs.push(i === 0 ? own : Math.max(own, xs[i - 1] + (i === 1 ? BOX * 0.9 : BOX + 4)))
    }
    const last = xs.length - 1
    xs[last] = Math.min(xs[last], end)
    for (let i = last - 1; i > 0; i--) xs[i] = Math.min(xs[i], xs[i + 1] - BOX)
    return xs
  }
  const plusX = $derived(places(both.plus))
  const minusX = $derived(places(both.minus))

  function move(part: Part, atM: number, commit: boolean) {
    const doc = view.doc
    const at = roundM(atM)
    const charge = view.circuit?.kind === 'charge'
    if (part.kind === 'fuse')
      put(view.id, { fuse: { ...doc.fuse, distanceM: charge ? roundM(r.laid.lengthM - at) : at } }, commit)
    else if (part.kind === 'switch')
      put(view.id, { switch: { ratingA: null, maxDcV: null, absent: false, ...(doc.switch ?? {}), atM: at } }, commit)
    else if (part.kind === 'shunt') put(view.id, { shuntM: at }, commit)
    else if (part.kind === 'bus' && both.plus.at(-1)!.kind !== 'bus') put(view.id, { busM: at }, commit)
    else put(view.id, { lengthM: at, conductorLengthsM: [] }, commit)
  }
  const movable = (p: Part) => p.kind !== 'post' && p.kind !== 'begin'

  function grab(event: PointerEvent, part: Part) {
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    drag = { part, fromX: event.clientX, pxPerM, span: r.laid.lengthM }
    event.preventDefault()
  }
  function pull(event: PointerEvent) {
    if (!drag) return
    const by = (event.clientX - drag.fromX) / drag.pxPerM
    if (Math.abs(event.clientX - drag.fromX) > 2) move(drag.part, drag.part.atM + by, false)
  }
  function let_go() {
    if (!drag) return
    drag = null
    void session.commit()
  }

  const w1 = $derived(plus + 42)
  const w2 = $derived(minus - 36)
</script>

{#snippet pole(parts: Part[], xs: number[], cy: number, sign: string, label: number)}
  {#each inside as c (c.key)}
    {@const area = (e.network!.wiring.style === 'bus-bars' ? n!.copper.lead : n!.copper.link).areaMm2}
    <Copper
      x1={c.x1}
      y1={cy}
      x2={c.x2}
      y2={cy}
      thick={Math.min(thick, diameterMm(area) * pxPerMm)}
      share={c.copper > 0 ? c.load / c.copper : 0}
    />
  {/each}
  <Copper x1={post} y1={cy} x2={xs.at(-1)!} y2={cy} {thick} conductors={r.cable.conductors} {share} />
  {#if view.main && n && n.strings.shares.length > 1}
    {@const last = inside.length}
    {#each { length: last + 1 } as _, i (i)}
      {@const x = i < last ? inside[i].x1 : post}
      {@const many = last === 1 && n.strings.shares.length > 2 && n.wiring.style !== 'bus-bars'}
      {@const from = sign === '−' && n.wiring.style === 'diagonal' ? i : last - i}
      {#if n.wiring.style !== 'bus-bars' || i === last}
        <circle cx={x} {cy} r="11" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.2" />
        <text {x} y={cy + 4.5} text-anchor="middle" class="fig letter"
          >{n.wiring.style === 'bus-bars'
            ? sign
            : stringName(many && from > 0 ? n.strings.shares.length : from + 1)}</text
        >
      {/if}
    {/each}
  {:else}
    <circle cx={post} {cy} r="11" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.2" />
    <text x={post} y={cy + 4.5} text-anchor="middle" class="fig letter">{sign}</text>
  {/if}
  {#each parts as p, i (p.kind + i)}
    {@const x = xs[i]}
    {#if i > 0}
      <!-- The metres of the piece before it. -->
      <path d="M{xs[i - 1]} {label - 4} V{label + 4} M{x} {label - 4} V{label + 4}" stroke="var(--ink-3)" />
      {@const room = x - xs[i - 1]}
      <text x={(x + xs[i - 1]) / 2} y={label + 4} text-anchor="middle" class="fig metres"
        >{room > 30 ? metres(p.atM - parts[i - 1].atM) : ''}</text
      >
      {#if room > 74}
        <path
          d="M{xs[i - 1]} {label} H{(x + xs[i - 1]) / 2 - 24} M{(x + xs[i - 1]) / 2 + 24} {label} H{x}"
          stroke="var(--hair)"
        />
      {/if}
    {/if}
    {#if movable(p)}
      <!-- Keyboards change the same lengths in the fields beneath. -->
      <g
        class="part"
        role="presentation"
        data-part={sign === '+' ? p.kind : `${p.kind}-minus`}
        onpointerdown={(event) => grab(event, p)}
        onpointermove={pull}
        onpointerup={let_go}
        onpointercancel={let_go}
      >
        {#if p.kind === 'inverter' || p.kind === 'end'}
          <rect x={x - 11} y={cy - 22} width="22" height="44" fill="transparent" />
          <line x1={x} x2={x} y1={cy - 17} y2={cy + 17} stroke="var(--ink)" stroke-width="2.5" />
        {:else}
          <rect
            x={x - BOX / 2}
            y={cy - 15}
            width={p.kind === 'bus' ? 20 : BOX}
            height="30"
            transform={p.kind === 'bus' ? 'translate(3.5 0)' : undefined}
            fill="var(--sheet)"
            stroke="var(--ink)"
            stroke-width="1.2"
          />
          {#if p.kind === 'fuse'}<line
              x1={x - BOX / 2}
              x2={x + BOX / 2}
              y1={cy}
              y2={cy}
              stroke="var(--ink)"
              stroke-width="2"
            />
          {:else if p.kind === 'switch'}<path
              d="M{x - 10} {cy + 5} h4 l10 -9 M{x + 6} {cy + 5} h4"
              fill="none"
              stroke="var(--ink)"
              stroke-width="2"
            />
          {:else if p.kind === 'shunt'}<path
              d="M{x - 8} {cy - 5} h16 m-16 5 h16 m-16 5 h16"
              stroke="var(--ink)"
              stroke-width="1.5"
            />
          {:else}<text {x} y={cy + 5.5} text-anchor="middle" class="fig" style:font-size="16px">{sign}</text>{/if}
        {/if}
      </g>
    {/if}
  {/each}
{/snippet}

{@render pole(both.plus, plusX, plus, '+', plus + 27)}
{@render pole(both.minus, minusX, minus, '−', minus - 25)}
<text x={end - 4} y={plus - 21} text-anchor="end" class="faint"
  >{r.cable.conductors > 1 ? `${r.cable.conductors} × ` : ''}{r.cable.size ?? 'no cable'}, {metres(
    r.laid.lengthM,
  )}{narrow ? '' : ' one way'}</text
>
{#if r.fuse.ratingA}
  <text x={Math.max(post + 2, plusX[both.plus.findIndex((p) => p.kind === 'fuse')] - BOX / 2)} y={plus - 21} class="fig"
    >{say(r.fuse.ratingA, 'rating')}</text
  >
{:else}
  <text x={post + 16} y={plus - 21} class="strong">no fuse</text>
{/if}
{#if inside.length > 0 && n && !narrow}
  <text x={left} y={plus + 31} class="faint"
    >{n.wiring.style === 'bus-bars' ? `${n.copper.lead.size} leads` : `${n.copper.link.size} links`}{post - left > 190
      ? ', inside the bank'
      : ''}</text
  >
  <text x={left} y={minus - 21} class="faint">minus side</text>
{/if}
<Wedge {view} plus={both.plus} minus={both.minus} {plusX} {minusX} {w1} {w2} {post} {end} {left} {narrow} />

<style>
  .part {
    cursor: ew-resize;
    touch-action: none;
  }
  .part:hover rect {
    stroke-width: 2.2;
  }
  .letter {
    font-size: 12.5px;
  }
  .metres {
    font-size: 13px;
  }
  .faint {
    fill: var(--ink-2);
  }
  .strong {
    font-weight: 700;
  }
</style>
