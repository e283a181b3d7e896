<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { cut } from '../../drawing/geometry'
  import { sayVolts } from '../../ui/quantity'
  import { bench } from './bench.svelte'
  import Hatches from './Hatches.svelte'

  /** Every threshold of the bus on one axis: what crosses is black. Settings of chargers are dragged, the bank's are not. */
  let { narrow, wide }: { narrow: boolean; wide: boolean } = $props()
  type Column = Schemas['ScaleColumn']
  type VoltMark = Schemas['VoltMark']

  const uid = $props.id()
  let width = $state(340)
  let height = $state(400)
  const scale = $derived(session.result!.charging!.scale)
  const axisX = 84
  const right = $derived(width - 4)
  const arrays = $derived(scale.arrays)
  const top = $derived(arrays.length > 0 ? 112 : 34)
  const bottom = $derived(height - 16)
  const y = (v: number) => bottom - ((v - scale.fromV) / (scale.toV - scale.fromV)) * (bottom - top)
  const plain = (v: number) => sayVolts(v).replace(' V', '')

  /** Fuses share a column; of many devices the wrong ones come first, and the rest are counted. */
  const shown = $derived.by(() => {
    const rest = scale.columns.filter((c) => c.kind !== 'fuse' && c.kind !== 'device')
    const devices = scale.columns.filter((c) => c.kind === 'device')
    const fuses = scale.columns.filter((c) => c.kind === 'fuse')
    const most = Math.max(1, Math.floor((right - axisX) / 37) - rest.length - (fuses.length > 0 ? 1 : 0))
    const sorted = devices.toSorted((a, b) => Number(b.state === 'wrong') - Number(a.state === 'wrong'))
    return { columns: [...rest, ...sorted.slice(0, most)], left: sorted.length - Math.min(most, sorted.length), fuses }
  })
  const count = $derived(shown.columns.length + (shown.fuses.length > 0 ? 1 : 0))
  const pitch = $derived(Math.min(58, (right - axisX - 6) / Math.max(1, count)))
  const cx = (i: number) => axisX + 6 + (i + 0.5) * pitch
  const head = (c: Column) => cut(c.kind === 'charger' ? c.name : c.short, Math.max(4, Math.floor(pitch / 5.4)))

  const wants = $derived(scale.lines.filter((l) => l.kind === 'absorb' || l.kind === 'float'))
  const wantedV = (kind: string) => wants.find((l) => l.kind === kind)?.v ?? scale.fromV
  const roomy = $derived(width > 318)
  const hard = $derived(scale.lines.filter((l) => l.kind === 'top' || l.kind === 'bottom'))
  const empty = $derived(scale.lines.find((l) => l.kind === 'nearly-empty'))
  const volts = $derived(
    Array.from({ length: Math.floor(scale.toV - scale.fromV) + 1 }, (_, i) => scale.fromV + i).filter(
      (v, _, all) => all.length * 13 < bottom - top || v % Math.ceil((all.length * 13) / (bottom - top)) === 0,
    ),
  )
  const chargers = $derived(shown.columns.filter((c) => c.kind === 'charger').length)
  const rest = $derived(scale.rest.marks)
  const grey = $derived(scale.rest.greyFromV === null ? null : { from: scale.rest.greyFromV, to: scale.rest.greyToV! })
  /** Within the grey stretch a charge cannot be told apart: it is written once. */
  const inGrey = (v: number) => grey !== null && v >= grey.from - 1e-6 && v <= grey.to + 1e-6
  const restTop = $derived(y(rest.at(-1)!.v))
  const seen = (v: number) => v >= scale.fromV && v <= scale.toV

  // The array's own axis above the break.
  const arrayMost = $derived(Math.max(1, ...arrays.map((a) => Math.max(a.mostV, a.coldV))))
  const yArray = (v: number) => 92 - (v / arrayMost) * 52

  let drag = $state.raw<{ mark: VoltMark; before: unknown } | null>(null)
  let inHand = $state<string | null>(null)
  let held: unknown = null
  let paper: SVGGElement
  const key = (c: Column, m: VoltMark) => `${c.id} ${m.setting}`

  function standing(mark: VoltMark): unknown {
    let here: unknown = session.bank
    for (const part of mark.path!.split('/').slice(1)) here = (here as Record<string, unknown> | null)?.[part]
    return here ?? null
  }
  function put(mark: VoltMark, v: number) {
    const value = Math.round(Math.max(scale.fromV, Math.min(scale.toV, v)) * 10) / 10
    const now = standing(mark)
    session.edit({
      path: `~${mark.path}`,
      value:
        mark.setting === 'start' ? value : { set: false, seen: null, date: null, ...(now as object | null), value },
    })
  }
  function voltAt(e: PointerEvent) {
    const box = paper.ownerSVGElement!.getBoundingClientRect()
    return scale.fromV + ((bottom - (e.clientY - box.top)) / (bottom - top)) * (scale.toV - scale.fromV)
  }
  function down(e: PointerEvent, c: Column, m: VoltMark) {
    bench.pickCard(c.id, m.setting)
    if (!m.path || e.button !== 0) return
    drag = { mark: m, before: standing(m) }
    ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    e.preventDefault()
  }
  function move(e: PointerEvent) {
    if (drag) put(drag.mark, voltAt(e))
  }
  function up(e: PointerEvent) {
    if (!drag) return
    ;(e.currentTarget as Element).releasePointerCapture(e.pointerId)
    drag = null
    void session.commit()
  }
  function press(e: KeyboardEvent, c: Column, m: VoltMark) {
    const id = key(c, m)
    if (e.key === 'Enter' || e.key === ' ') {
      bench.pickCard(c.id, m.setting)
      if (!m.path) return
      e.preventDefault()
      e.stopPropagation()
      if (inHand === id) {
        inHand = null
        void session.commit()
      } else {
        held = standing(m)
        inHand = id
      }
      return
    }
    if (inHand !== id) return
    const by = e.shiftKey ? 1 : 0.1
    if (e.key === 'Escape') {
      session.edit({ path: `~${m.path}`, value: held })
      inHand = null
    } else if (e.key === 'ArrowUp') put(m, m.v + by)
    else if (e.key === 'ArrowDown') put(m, m.v - by)
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  const told = (m: VoltMark) =>
    m.state === 'not-set'
      ? `${m.label} not set yet, wanted ${plain(m.v)} V`
      : `${m.label} ${plain(m.v)} V${m.why ? `, ${m.why}` : ''}`
</script>

<Drawing
  name="The volt scale of the bus"
  bind:width
  bind:height
  fill={wide}
  floor={narrow ? 420 : 300}
  least={narrow ? axisX + 8 + count * 46 : 0}
>
  <Hatches id={uid} />
  <text x="0" y="13" class="title">The volt scale</text>
  {#each shown.columns as c, i (c.kind + c.id)}
    <text
      x={cx(i)}
      y={i % 2 === 1 && pitch < 46 ? 13 : 26}
      text-anchor="middle"
      class={['head', c.state === 'wrong' && 'strong']}>{head(c)}</text
    >
  {/each}
  {#if shown.fuses.length > 0}
    <text x={cx(count - 1)} y={(count - 1) % 2 === 1 && pitch < 46 ? 13 : 26} text-anchor="middle" class="head"
      >fuses</text
    >
  {/if}
  <line x1={axisX} x2={right} y1="30" y2="30" stroke="var(--hair)" />
  {#if arrays.length > 0}
    <text x="0" y="70" class="side">array</text>
    <line x1={axisX} x2={axisX} y1={yArray(arrayMost)} y2="92" stroke="var(--ink)" />
    {#each [0, 0.5, 1] as part (part)}
      <text x={axisX - 6} y={yArray(arrayMost * part) + 4} text-anchor="end" class="fig axis"
        >{plain(Math.round(arrayMost * part))}</text
      >
      <line x1={axisX - 3} x2={axisX} y1={yArray(arrayMost * part)} y2={yArray(arrayMost * part)} stroke="var(--ink)" />
    {/each}
    {#each arrays as a (a.source)}
      {@const i = Math.max(
        0,
        shown.columns.findIndex((c) => c.id === a.source),
      )}
      {@const n = session.result!.charging!.sources.findIndex((s) => s.id === a.source)}
      <rect
        x={cx(i) - 8}
        y={yArray(a.mostV)}
        width="16"
        height={92 - yArray(a.mostV)}
        fill="none"
        stroke="var(--ink-3)"
      />
      <rect
        x={cx(i) - 5}
        y={yArray(a.coldV)}
        width="10"
        height={Math.max(1, yArray(a.hotV) - yArray(a.coldV))}
        fill={a.coldOk && a.hotOk ? 'var(--hair)' : 'var(--ink)'}
        stroke="var(--ink)"
      />
      {#if arrays.length === 1}
        <FigText
          ptr="/charging/sources/{n}/array/coldVocV"
          unit="V"
          label="open on a cold morning"
          x={cx(i) + 13}
          y={Math.max(44, yArray(a.coldV) + 6)}
          size={13}
          after={roomy ? `cold and open, ${plain(a.mostV)} V allowed` : `cold, of ${plain(a.mostV)} V`}
        />
        <FigText
          ptr="/charging/sources/{n}/array/hotVmpV"
          unit="V"
          label="at work when hot"
          x={cx(i) + 13}
          y={Math.min(90, Math.max(62, yArray(a.hotV) + 6))}
          size={13}
          after={roomy ? `hot, ${plain(a.leastV)} V needed` : `hot, over ${plain(a.leastV)} V`}
        />
      {/if}
    {/each}
    <path d="M{axisX - 6} 102 l6 -5 l0 8 l6 -5" fill="none" stroke="var(--ink)" />
  {/if}
  <!-- The bus. -->
  {#if scale.rest.greyFromV !== null && scale.rest.greyToV !== null}
    <rect
      x={axisX - 30}
      y={y(scale.rest.greyToV)}
      width={right - axisX + 30}
      height={y(scale.rest.greyFromV) - y(scale.rest.greyToV)}
      fill="var(--page)"
    />
  {/if}
  {#each volts as v (v)}
    <line x1={axisX} x2={right} y1={y(v)} y2={y(v)} stroke="var(--grid)" />
    <line x1={axisX - 3} x2={axisX} y1={y(v)} y2={y(v)} stroke="var(--ink)" />
    {#if wants.every((l) => Math.abs(y(l.v) - y(v)) > 7)}
      <text x={axisX - 6} y={y(v) + 4} text-anchor="end" class="fig axis bare">{v}</text>
    {/if}
  {/each}
  <line x1={axisX} x2={axisX} {...{ y1: top, y2: bottom }} stroke="var(--ink)" />
  <!-- The bank at rest. -->
  <rect x="34" y={restTop} width="16" height={y(rest[0].v) - restTop} fill="var(--sheet)" stroke="var(--ink)" />
  {#if scale.rest.greyFromV !== null && scale.rest.greyToV !== null}
    <rect
      x="34"
      y={y(scale.rest.greyToV)}
      width="16"
      height={y(scale.rest.greyFromV) - y(scale.rest.greyToV)}
      fill="var(--hair)"
      stroke="var(--ink)"
    />
  {/if}
  {#each rest as m (m.soc)}
    {#if seen(m.v)}
      <line x1="34" x2="50" y1={y(m.v)} y2={y(m.v)} stroke="var(--ink)" />
      {#if !inGrey(m.v) && wants.every((l) => Math.abs(y(l.v) - 4 - y(m.v)) > 13)}<text
          x="30"
          y={y(m.v) + (m.soc === 1 ? 0 : 7)}
          text-anchor="end"
          class="fig soc"
          data-give>{Math.round(m.soc * 100)} %</text
        >{/if}
    {/if}
  {/each}
  {#if grey}
    <text x="30" y={(y(grey.from) + y(grey.to)) / 2 + 4} text-anchor="end" class="fig soc">90–20</text>
  {/if}
  {#each wants as l (l.kind)}
    <line
      x1="0"
      x2={cx(Math.max(0, chargers - 1)) + pitch / 2}
      y1={y(l.v)}
      y2={y(l.v)}
      stroke="var(--copper)"
      stroke-dasharray="5 3"
    />
  {/each}
  <FigText
    ptr="/charging/wants/absorbV"
    unit="class"
    label="absorption the bank wants"
    x={0}
    y={y(wantedV('absorb')) - 4}
    size={12.5}
    before="absorb"
    fill="var(--copper-text)"
  />
  <FigText
    ptr="/charging/wants/floatV"
    unit="class"
    label="float the bank wants"
    x={0}
    y={y(wantedV('float')) - 4}
    size={12.5}
    before="float"
    fill="var(--copper-text)"
  />
  {#each hard as l (l.kind)}
    <line x1={axisX} x2={right} y1={y(l.v)} y2={y(l.v)} stroke="var(--ink)" stroke-width="2.4" />
    <text x={right} y={l.kind === 'top' ? y(l.v) - 5 : y(l.v) + 13} text-anchor="end" class="word" data-give
      >{l.label} <tspan class="fig">{plain(l.v)} V</tspan></text
    >
  {/each}
  {#if empty && seen(empty.v)}
    <line x1={axisX} x2={right} y1={y(empty.v)} y2={y(empty.v)} stroke="var(--ink)" stroke-dasharray="2 2" />
    <text x={axisX + 4} y={y(empty.v) + 13} class="word" data-give>nearly empty, under load</text>
  {/if}
  <g bind:this={paper}>
    {#each shown.columns as c, i (c.kind + c.id)}
      {#if c.fromV !== null && c.toV !== null}
        {@const [a, b] = [Math.min(scale.toV, c.toV), Math.max(scale.fromV, c.fromV)]}
        <rect
          x={cx(i) - 6}
          y={y(a)}
          width="12"
          height={Math.max(1, y(b) - y(a))}
          fill="var(--sheet)"
          fill-opacity="0.6"
          stroke="var(--ink)"
        />
        {#if c.kind === 'device'}
          {#if seen(c.toV)}<text x={cx(i)} y={y(c.toV) - 4} text-anchor="middle" class="fig num" data-give
              >{plain(c.toV)}</text
            >{/if}
          {#if seen(c.fromV)}<text x={cx(i)} y={y(c.fromV) + 13} text-anchor="middle" class="fig num" data-give
              >{plain(c.fromV)}</text
            >{/if}
        {/if}
      {:else if c.kind === 'charger' && c.marks.length > 1}
        <line
          x1={cx(i)}
          x2={cx(i)}
          y1={y(Math.max(...c.marks.map((m) => m.v)))}
          y2={y(Math.min(...c.marks.map((m) => m.v)))}
          stroke={c.state === 'not-set' ? 'var(--ink-3)' : 'var(--ink)'}
          stroke-dasharray={c.state === 'not-set' ? '3 2' : undefined}
        />
      {/if}
      {#each c.spans as s, k (k)}
        {@const [a, b] = [Math.min(scale.toV, s.toV), Math.max(scale.fromV, s.fromV)]}
        {#if a > b}
          <rect
            x={cx(i) - 8}
            y={y(a)}
            width="16"
            height={Math.max(2, y(b) - y(a))}
            fill={s.state === 'wrong' ? 'var(--ink)' : `url(#${uid}-look)`}
            stroke="var(--ink)"
            data-span="{c.id} {s.state}"
          />
        {/if}
      {/each}
      {#each c.marks as m (m.setting)}
        {#if seen(m.v)}
          <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
          <g
            role="button"
            tabindex="-1"
            data-stop
            data-mark={key(c, m)}
            data-held={inHand === key(c, m) ? '' : undefined}
            aria-label="{c.name}: {told(m)}. {m.path
              ? inHand === key(c, m)
                ? 'Up and down move it, Enter keeps it, Escape gives it back'
                : 'Enter takes it in hand'
              : ''}"
            class={['mark', m.path && 'free', bench.setting === key(c, m) && 'on', inHand === key(c, m) && 'held']}
            onpointerdown={(ev) => down(ev, c, m)}
            onpointermove={move}
            onpointerup={up}
            onpointercancel={() => {
              if (drag) session.edit({ path: `~${drag.mark.path}`, value: drag.before })
              drag = null
            }}
            onkeydown={(ev) => press(ev, c, m)}
          >
            <rect x={cx(i) - 14} y={y(m.v) - 9} width="28" height="18" fill="transparent" />
            <line
              x1={cx(i) - 9}
              x2={cx(i) + 9}
              y1={y(m.v)}
              y2={y(m.v)}
              stroke={m.state === 'not-set' ? 'var(--ink-3)' : 'var(--ink)'}
              stroke-width={m.state === 'wrong' ? 4 : m.state === 'not-set' ? 1.2 : 2.2}
              stroke-dasharray={m.state === 'not-set' ? '3 2' : undefined}
            />
          </g>
          {#if m.state === 'look' || m.state === 'wrong' || bench.setting === key(c, m)}
            <text pointer-events="none" x={cx(i) - 12} y={y(m.v) + 4} text-anchor="end" class="fig num" data-give
              >{plain(m.v)}</text
            >
          {:else if c.kind === 'inverter' && m.state !== 'not-set'}
            <text pointer-events="none" x={cx(i) - 11} y={y(m.v) + 4} text-anchor="end" class="word" data-give
              >{m.label} <tspan class="fig">{plain(m.v)}</tspan></text
            >
          {/if}
        {/if}
      {/each}
    {/each}
    {#each shown.fuses as c (c.id)}
      {@const v = c.marks[0].v}
      {#each c.spans as s, k (k)}
        <rect
          x={cx(count - 1) - 8}
          y={y(Math.min(scale.toV, s.toV))}
          width="16"
          height={Math.max(2, y(Math.max(scale.fromV, s.fromV)) - y(Math.min(scale.toV, s.toV)))}
          fill="var(--ink)"
        />
      {/each}
      {#if seen(v)}
        <line
          x1={cx(count - 1) - 11}
          x2={cx(count - 1) + 11}
          y1={y(v)}
          y2={y(v)}
          stroke="var(--ink)"
          stroke-width="2.4"
        />
        {#if shown.fuses.find((f) => f.marks[0].v === v) === c}
          <text x={cx(count - 1)} y={y(v) - 4} text-anchor="middle" class="fig num" data-give>{plain(v)}</text>
        {/if}
      {/if}
    {/each}
    {#if shown.fuses.some((c) => !seen(c.marks[0].v))}
      {@const over = shown.fuses.filter((c) => !seen(c.marks[0].v)).map((c) => plain(c.marks[0].v))}
      <text x={cx(count - 1)} y={top + 9} text-anchor="middle" class="fig num" data-give>↑ {over[0]}</text>
    {/if}
  </g>
  {#if shown.left > 0}
    <text x={right} y={bottom + 13} text-anchor="end" class="word">{shown.left} more devices fit</text>
  {/if}
</Drawing>

<style>
  .title {
    font-weight: 700;
    font-size: 13px;
  }
  .head {
    font-size: 11.5px;
  }
  .strong {
    font-weight: 700;
  }
  .side,
  .word {
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .axis {
    font-size: 11px;
    fill: var(--ink-2);
  }
  .num,
  .soc {
    font-size: 12px;
  }
  .soc {
    font-size: 11px;
  }
  .mark {
    touch-action: none;
  }
  .free {
    cursor: ns-resize;
  }
  .on line {
    stroke: var(--copper);
  }
  .held line {
    stroke: var(--copper);
    stroke-width: 5;
  }
  g:focus-visible {
    outline: 2px solid var(--ink);
  }
</style>
