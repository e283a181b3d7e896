<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { diameterMm } from '../../drawing/geometry'
  import { num, stringName } from '../../ui/quantity'
  import Hatches from '../charging/Hatches.svelte'
  import { indexOf } from './positions'
  import { stand } from './stand.svelte'
  import type { StandingUnit } from './stand.svelte'

  /** The compartment from above, lid off, and from the front, to one scale: units dragged and turned by hand. */
  const uid = $props.id()
  let width = $state(640)
  const room = $derived(stand.document!)
  const here = $derived(stand.here!)
  const [LEFT, RIGHT, TOP] = [58, 84, 24]
  const scale = $derived(Math.min((width - LEFT - RIGHT) / room.lengthMm, 300 / (room.widthMm + room.heightMm), 0.9))
  const x = (mm: number) => LEFT + mm * scale
  const y = (mm: number) => TOP + mm * scale
  const bottom = $derived(y(room.widthMm))
  const front = $derived(bottom + 44)
  const floor = $derived(front + room.heightMm * scale)
  const height = $derived(floor + 26)
  const name = (u: { string: number; unit: number }) =>
    `${stringName(u.string)}${(session.result?.bank?.layout.series ?? 1) > 1 ? u.unit : ''}`
  const ah = (u: StandingUnit) => {
    const positions = session.bank!.positions
    const said = positions[indexOf(positions, u)]
    return (said?.item ?? session.result!.bank!.unit).ah
  }
  /** Posts no larger than the narrowest unit has room for; too small for a sign they are dots. */
  const dot = $derived(
    Math.max(2, Math.min(6.5, ...here.units.map((u) => Math.min(u.lengthMm, u.widthMm) * scale * 0.16))),
  )
  const inHand = (u: StandingUnit) => stand.unit?.string === u.string && stand.unit.unit === u.unit
  const wrong = (u: StandingUnit) => u.overMm > 0 || u.into !== null
  const at = (string: number, unit: number) => here.units.find((u) => u.string === string && u.unit === unit)
  const network = $derived(session.result?.network ?? null)
  /** Links and jumpers between posts of this compartment, as arcs. */
  const copper = $derived(
    (stand.result?.conductors ?? []).flatMap((c) => {
      const series = session.result!.bank!.layout.series
      const [a, b] =
        c.kind === 'jumper'
          ? [at(c.string, c.after)?.minus, at(c.string, c.after + 1)?.plus]
          : c.rail === 'positive'
            ? [at(c.after, 1)?.plus, at(c.after + 1, 1)?.plus]
            : [at(c.after, series)?.minus, at(c.after + 1, series)?.minus]
      if (!a || !b) return []
      const area = c.kind === 'jumper' ? network?.copper.jumper.areaMm2 : network?.copper.link.areaMm2
      const [x1, y1, x2, y2] = [x(a.xMm), y(a.yMm), x(b.xMm), y(b.yMm)]
      const lift =
        Math.min(16, Math.hypot(x2 - x1, y2 - y1) * 0.2) * (c.rail === 'positive' && c.kind === 'link' ? -1 : 1)
      return [
        {
          key: `${c.kind} ${c.rail} ${c.string} ${c.after}`,
          d: `M${x1} ${y1} Q${(x1 + x2) / 2} ${(y1 + y2) / 2 + lift} ${x2} ${y2}`,
          wide: Math.max(2.5, Math.min(9, diameterMm(area ?? 16) * 1.6 * scale)),
        },
      ]
    }),
  )

  function drag(u: StandingUnit) {
    return (e: PointerEvent) => {
      const target = e.currentTarget as SVGElement
      const [x0, y0] = [e.clientX, e.clientY]
      stand.unit = { string: u.string, unit: u.unit }
      target.setPointerCapture(e.pointerId)
      let moved = false
      const to = (p: PointerEvent) => ({
        xMm: Math.round(u.xMm + (p.clientX - x0) / scale),
        yMm: Math.round(u.yMm + (p.clientY - y0) / scale),
      })
      target.onpointermove = (p) => {
        if (!moved && Math.hypot(p.clientX - x0, p.clientY - y0) < 3) return
        moved = true
        stand.put(u, to(p), false)
      }
      target.onpointerup = target.onpointercancel = (p) => {
        target.onpointermove = target.onpointerup = target.onpointercancel = null
        if (moved) stand.put(u, to(p), true)
      }
    }
  }
  function key(u: StandingUnit) {
    return (e: KeyboardEvent) => {
      const step = e.shiftKey ? 1 : 10
      const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key]
      if (by) {
        e.preventDefault()
        e.stopPropagation()
        stand.put(u, { xMm: u.xMm + by[0], yMm: u.yMm + by[1] }, true)
      } else if (e.key === 'r' || e.key === 'R') {
        e.preventDefault()
        stand.turn(u)
      }
    }
  }
  const r = $derived(here.room)
  const nuts = $derived(Math.max(0, r.overWantedMm) * scale)
  const [top, tall] = $derived([floor - r.tallestMm * scale, r.tallestMm * scale])
</script>

<Drawing name="The compartment from above and from the front" bind:width {height}>
  <Hatches id={uid} />
  <text x={LEFT} y="14" class="title">from above, lid off</text>
  <rect x={LEFT} y={TOP} width={room.lengthMm * scale} height={room.widthMm * scale} class="wall" />
  {#each here.units as u (`${u.string} ${u.unit}`)}
    <rect
      x={x(u.xMm)}
      y={y(u.yMm)}
      width={u.lengthMm * scale}
      height={u.widthMm * scale}
      class={['unit', inHand(u) && 'hand', wrong(u) && 'wrong']}
      role="button"
      tabindex="-1"
      data-stop
      data-held={inHand(u) ? 'yes' : undefined}
      data-standing={name(u)}
      aria-label="{name(u)}{u.lying ? ', lying' : ''}{wrong(u)
        ? u.into
          ? `, stands in ${u.into}`
          : `, ${num(u.overMm)} mm beyond the wall`
        : ''}. Arrows move it, R turns it"
      onpointerdown={drag(u)}
      onclick={() => (stand.unit = { string: u.string, unit: u.unit })}
      onkeydown={key(u)}
    />
    {#if wrong(u)}<rect
        x={x(u.xMm)}
        y={y(u.yMm)}
        width={u.lengthMm * scale}
        height={u.widthMm * scale}
        fill="url(#{uid}-slanted)"
        class="over"
      />{/if}
  {/each}
  {#each copper as c (c.key)}
    <path d={c.d} fill="none" stroke="var(--ink)" stroke-width={c.wide + 1.4} class="over" />
    <path d={c.d} fill="none" stroke="var(--copper)" stroke-width={c.wide} class="over" />
  {/each}
  {#each here.units as u (`${u.string} ${u.unit}`)}
    {@const [cx, cy] = [x(u.xMm + u.lengthMm / 2), y(u.yMm + u.widthMm / 2)]}
    {#if u.lengthMm * scale > 30 && u.widthMm * scale > 18}
      <text x={cx} y={cy + (u.widthMm * scale > 44 ? 0 : 5)} text-anchor="middle" class="fig label">{name(u)}</text>
      {#if u.widthMm * scale > 44 && u.lengthMm * scale > 44}
        <text x={cx} y={cy + 15} text-anchor="middle" class="faint">{num(ah(u))} Ah</text>
      {/if}
    {/if}
    {#each [{ p: u.plus, t: '+' }, { p: u.minus, t: '−' }] as post (post.t)}
      <circle cx={x(post.p.xMm)} cy={y(post.p.yMm)} r={dot} class="post" />
      {#if dot > 5.5}<text x={x(post.p.xMm)} y={y(post.p.yMm) + 4.5} text-anchor="middle" class="sign">{post.t}</text
        >{/if}
    {/each}
  {/each}
  <text transform="translate({LEFT - 14} {(TOP + bottom) / 2}) rotate(-90)" text-anchor="middle" class="fig measure"
    >{num(room.widthMm)} mm</text
  >
  <text x={LEFT} y={front - 12} class="title">from the front</text>
  {#if here.units.length > 0 && r.overWantedMm > 0}
    <rect
      x={x(Math.min(...here.units.map((u) => u.xMm)))}
      y={top - nuts}
      width={(Math.max(...here.units.map((u) => u.xMm + u.lengthMm)) - Math.min(...here.units.map((u) => u.xMm))) *
        scale}
      height={nuts}
      fill="url(#{uid}-slanted)"
    />
  {/if}
  {#each here.units.toSorted((a, b) => a.yMm - b.yMm) as u (`${u.string} ${u.unit}`)}
    <rect
      x={x(u.xMm)}
      y={floor - u.heightMm * scale}
      width={u.lengthMm * scale}
      height={u.heightMm * scale}
      class="front"
    />
    {#if u.lengthMm * scale > 26}<text
        x={x(u.xMm + u.lengthMm / 2)}
        y={floor - (u.heightMm * scale) / 2 + 5}
        text-anchor="middle"
        class="fig"
        data-give>{name(u)}</text
      >{/if}
  {/each}
  <!-- The lid: black where nuts or air would go through it. -->
  <path d="M{LEFT} {front} V{floor} H{x(room.lengthMm)} V{front}" class="wall" fill="none" />
  {#if room.lid !== 'open'}
    <rect
      x={LEFT - 10}
      y={front - (room.lid === 'steel' ? 3 : 5)}
      width={room.lengthMm * scale + 20}
      height={room.lid === 'steel' ? 3 : 5}
      class={room.lid}
    />
  {/if}
  {#if r.heightLeftMm < 0 && here.units.length > 0}
    <rect
      x={LEFT}
      y={top - nuts}
      width={room.lengthMm * scale}
      height={Math.max(2, front - (top - nuts))}
      fill="var(--ink)"
    />
  {/if}
  <text x={x(room.lengthMm) + 12} y={Math.max(front + 4, top - nuts + 4)} class="fig side" data-give
    >{num(r.overWantedMm)} <tspan class="faint">wanted</tspan></text
  >
  <text x={x(room.lengthMm) + 12} y={Math.max(front + 18, top - nuts + 18)} class="fig side" data-give
    >{num(r.overThereMm)} <tspan class="faint">there</tspan></text
  >
  <text x={x(room.lengthMm) + 12} y={top + Math.max(16, tall / 2)} class="fig side" data-give
    >{num(r.tallestMm)} <tspan class="faint">unit</tspan></text
  >
  <text transform="translate({LEFT - 14} {(front + floor) / 2}) rotate(-90)" text-anchor="middle" class="fig measure"
    >{num(room.heightMm)}</text
  >
  <text x={width < 520 ? 4 : LEFT} y={floor + 17} class="faint" data-give
    >{width < 520 ? '' : `${num(room.lengthMm)} mm long; `}{r.lengthLeftMm >= 0
      ? `${num(r.lengthLeftMm)} mm left beside the units`
      : `${num(-r.lengthLeftMm)} mm short`}{width < 520 ? '' : `; ${num(scale, 2)} px a mm`}</text
  >
</Drawing>

<style>
  .title {
    font-weight: 700;
    font-size: 12.5px;
  }
  .faint {
    fill: var(--ink-2);
    font-size: 11.5px;
  }
  .measure {
    font-size: 12px;
  }
  .side {
    font-size: 12.5px;
  }
  .wall {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  path.wall {
    fill: none;
  }
  .unit {
    fill: var(--page);
    stroke: var(--ink);
    stroke-width: 1.4;
    cursor: grab;
    touch-action: none;
  }
  .hand {
    stroke: var(--copper);
    stroke-width: 3;
  }
  .wrong {
    stroke-width: 2.6;
  }
  .front {
    fill: var(--page);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .over,
  .post,
  text {
    pointer-events: none;
  }
  .label {
    font-size: 16px;
  }
  .post {
    fill: var(--sheet);
    stroke: var(--ink);
  }
  .sign {
    font-size: 12px;
    font-weight: 700;
  }
  .steel {
    fill: var(--ink);
  }
  .wood {
    fill: var(--sheet);
    stroke: var(--ink);
  }
</style>
