<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Copper from '../../drawing/Copper.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { diameterMm, step125 } from '../../drawing/geometry'
  import { num, say, stringName } from '../../ui/quantity'
  import { bench } from './bench.svelte'
  import { conductorName } from './conductors'

  /** The bank as it stands: units, jumpers, links and leads with the share of their ampacity in use, and each string's amperes. */
  let height = $state(260)
  let width = $state(900)

  const e = $derived(session.result!)
  const bank = $derived(e.bank!)
  const n = $derived(e.network!)
  const run = $derived(e.mainRun)
  // What is tried on the bank: another load, a string out.
  const tried = $derived(bench.currents)
  const flow = $derived(tried ?? n.strings.amps)
  /** Amperes of a rail's links as they are looked at: what the strings beyond give. For the drawing only, never printed. */
  const railFlow = (rail: 'positive' | 'negative', after: number) => {
    if (tried === null) return (rail === 'positive' ? n.links.positiveA : n.links.negativeA)[after - 1]
    const beyond = rail === 'negative' && n.wiring.style === 'diagonal' ? flow.slice(0, after) : flow.slice(after)
    return Math.abs(beyond.reduce((sum, a) => sum + a, 0))
  }
  const share = $derived(
    tried === null || n.strings.bankA === 0 ? 1 : Math.abs(flow.reduce((sum, a) => sum + a, 0)) / n.strings.bankA,
  )
  const indexOf = (kind: string, rail: string, after: number, string = after) =>
    n.copper.placed.findIndex((c) => c.kind === kind && c.rail === rail && c.after === after && c.string === string)

  const [MARGIN, LEADS] = [16, 84]
  // Up to sixteen strings stand side by side on a desk; beyond, or on a phone, the drawing alone scrolls.
  const closest = $derived(bank.layout.parallel > 16 ? 56 : bank.layout.parallel > 12 ? 50 : 64)
  const least = $derived(bank.layout.parallel * closest + MARGIN + LEADS)
  const pitch = $derived(Math.max(closest, (width - MARGIN - LEADS) / bank.layout.parallel))
  const roomy = $derived(pitch >= 150)
  /** A unit keeps its shape, seen from above, on a tall screen: as wide as its length asks for, and no longer than its width allows. */
  const shape = $derived(
    bank.unit.size ? Math.min(2.4, Math.max(1.3, bank.unit.size.lengthMm / bank.unit.size.widthMm)) : 1.9,
  )
  const widest = $derived(roomy ? Math.max(72, pitch * 0.36) : Math.min(72, pitch - 14))
  /** Of a unit's place in its string the unit itself. */
  const FILLED = 0.86
  const many = $derived(bank.layout.series > 8)
  const rows = $derived(many ? 1 : bank.layout.series)
  // Bus bars stand off the units by the length their leads are drawn with.
  const OFF = 22
  const bars = $derived(n.wiring.style === 'bus-bars')
  const [railTop, railBottom] = $derived([
    36,
    Math.min(height - 40, roomy ? 36 + (bars ? 2 * OFF : 0) + (rows * widest * shape) / FILLED : height),
  ])
  const [top, bottom] = $derived(bars ? [railTop + OFF, railBottom - OFF] : [railTop, railBottom])
  const each = $derived((bottom - top) / rows)
  const box = $derived(roomy ? Math.max(72, Math.min(widest, (each * FILLED) / shape)) : widest)
  const pxPerMm = $derived(step125(22 / diameterMm(Math.max(n.copper.link.areaMm2, run?.cable.areaMm2 ?? 1))))
  const thick = (area: number) => diameterMm(area) * pxPerMm
  const mainThick = $derived(run?.cable.areaMm2 ? thick(run.cable.areaMm2) : 3)
  const linkThick = $derived(thick(n.copper.link.areaMm2))
  const strings = $derived(
    Array.from({ length: bank.layout.parallel }, (_, i) => ({
      i,
      name: stringName(i + 1),
      x: width - LEADS - (i + (roomy ? 0.78 : 0.5)) * pitch + (roomy ? 0 : 0),
    })),
  )
  /** Where the terminals stand on the unit, from its middle: on top in its middle line, on a long side or the front at that edge. */
  const side = $derived(
    bank.unit.terminalSide === 'long' || bank.unit.terminalSide === 'front' ? Math.max(0, box / 2 - 11) : 0,
  )
  const near = $derived(strings[0].x + side)
  const far = $derived(strings.at(-1)!.x + side)
  /** The unit that stands at a place: the bank's own, or another one. */
  const itemAt = (string: number, unit: number) =>
    session.bank!.positions.find((p) => p.string === string && p.unit === unit)?.item ?? bank.unit
  const saidAt = (string: number, unit: number) =>
    session.bank!.positions.find((p) => p.string === string && p.unit === unit) ?? null
  /** What it was tested to hold, and what else is said of it. */
  const saidAh = (string: number, unit: number) => {
    const [ah, health] = [itemAt(string, unit).ah, saidAt(string, unit)?.health ?? null]
    return health === null || health === 1 ? `${num(ah)} Ah` : `${num(ah * health)}/${num(ah)}`
  }
  const saidMore = (string: number, unit: number) => {
    const said = saidAt(string, unit)
    return [
      said?.jointMilliohm ? `+${num(said.jointMilliohm, 1)} mΩ` : '',
      said && said.soc !== null && said.soc < 1 ? `${num(said.soc * 100)} % full` : '',
    ]
      .filter(Boolean)
      .join(', ')
  }
  const allows = (item: typeof bank.unit) => item.bms?.continuousA ?? item.continuousA ?? null
  const limitOf = (string: number) =>
    Array.from({ length: bank.layout.series }, (_, u) => allows(itemAt(string, u + 1))).reduce(
      (a, b) => (a === null ? b : b === null ? a : Math.min(a, b)),
      null as number | null,
    )
  const limit = $derived(limitOf(bank.layout.parallel))
  const fullOf = (string: number) => limitOf(string) ?? Math.max(...n.strings.amps, 1) * 1.2
  const mainShare = $derived(run?.carries.ampacityA ? (run.designA / run.carries.ampacityA) * share : 0)
  const jumperShare = (amps: number) => (n.copper.jumper.ampacityA > 0 ? amps / n.copper.jumper.ampacityA : 0)
  const linkShare = (amps: number) => (n.copper.link.ampacityA > 0 ? amps / n.copper.link.ampacityA : 0)
  /** Places to point at: rail links, leads, jumpers. */
  const hits = $derived.by(() => {
    const list: { index: number; x: number; y: number; w: number; h: number; label: string }[] = []
    const add = (index: number, x: number, y: number, w: number, h: number) => {
      if (index < 0) return
      const c = n.copper.placed[index]
      list.push({
        index,
        x,
        y,
        w,
        h,
        label: `${conductorName(c)}, ${say(c.amps, 'A')} at full load. Press for its figures`,
      })
    }
    for (const s of strings) {
      if (s.i > 0 && n.wiring.style !== 'bus-bars') {
        const to = strings[s.i - 1].x
        add(indexOf('link', 'positive', s.i), s.x + side + 12, top - 12, Math.max(12, to - s.x - 24), 24)
        add(indexOf('link', 'negative', s.i), s.x + side + 12, bottom - 12, Math.max(12, to - s.x - 24), 24)
      }
      if (n.wiring.style === 'bus-bars') {
        add(indexOf('lead', 'positive', s.i + 1), s.x + side - 12, top - OFF + 4, 24, 14)
        add(indexOf('lead', 'negative', s.i + 1), s.x + side - 12, bottom + 4, 24, 14)
      }
      for (let r = 1; r < rows; r++)
        add(indexOf('jumper', 'positive', r, s.i + 1), s.x + side - 12, top + r * each - 9, 24, 18)
    }
    return list
  })
  const edge = $derived(width - 8)
  const low = $derived(bottom + Math.max(mainThick, linkThick) / 2 + 8)
</script>

<Drawing name={e.headlines.bank} bind:height fill bind:width {least}>
  <!-- Rails, or bus bars with a lead to each string. -->
  {#if n.wiring.style === 'bus-bars'}
    {#each [railTop, railBottom] as y (y)}
      <rect
        x={far - 16}
        y={y - 6}
        width={near - far + 32}
        height="12"
        fill="var(--sheet)"
        stroke="var(--ink)"
        stroke-width="1.5"
      />
    {/each}
    {#each strings as s (s.i)}
      {#each [{ from: railTop + 6, to: top, rail: 'positive' }, { from: bottom, to: railBottom - 6, rail: 'negative' }] as l (l.rail)}
        {@const c = n.copper.placed[indexOf('lead', l.rail, s.i + 1)]}
        <Copper
          x1={s.x + side}
          y1={l.from}
          x2={s.x + side}
          y2={l.to}
          thick={Math.min(14, thick(n.copper.lead.areaMm2))}
          share={c && c.ampacityA > 0 ? Math.abs(flow[s.i]) / c.ampacityA : 0}
          title="{n.copper.lead.size}, {say(n.copper.lead.lengthM, 'm')}"
        />
      {/each}
    {/each}
  {:else}
    {#each strings.slice(1) as s (s.i)}
      {@const to = strings[s.i - 1].x + side}
      <Copper
        x1={s.x + side}
        y1={top}
        x2={to}
        y2={top}
        thick={linkThick}
        share={linkShare(railFlow('positive', s.i))}
        title="{n.copper.link.size}, {say(n.copper.link.lengthM, 'm')}"
      />
      <Copper
        x1={s.x + side}
        y1={bottom}
        x2={to}
        y2={bottom}
        thick={linkThick}
        share={linkShare(railFlow('negative', s.i))}
        title="{n.copper.link.size}, {say(n.copper.link.lengthM, 'm')}"
      />
    {/each}
  {/if}
  <!-- Leads of the system. -->
  <Copper
    x1={near}
    y1={railTop}
    x2={edge}
    y2={railTop}
    thick={mainThick}
    conductors={run?.cable.conductors ?? 1}
    share={mainShare}
  />
  {#if n.wiring.style === 'diagonal' && bank.layout.parallel > 1}
    <path
      d="M{far} {bottom} V{low + 7} H{edge}"
      fill="none"
      stroke="var(--copper-body)"
      stroke-width={Math.min(10, mainThick)}
    />
    <path
      d="M{far} {bottom} V{low + 7} H{edge}"
      fill="none"
      stroke="var(--copper)"
      stroke-width={Math.min(10, mainThick) * Math.sqrt(Math.min(1, mainShare))}
    />
  {:else}
    <Copper
      x1={near}
      y1={railBottom}
      x2={edge}
      y2={railBottom}
      thick={mainThick}
      conductors={run?.cable.conductors ?? 1}
      share={mainShare}
    />
  {/if}
  {#each strings as s (s.i)}
    {@const amps = Math.abs(flow[s.i])}
    {@const gone = bench.isOut(s.i + 1)}
    {@const full = fullOf(s.i + 1)}
    <!-- The way down the string: lead, jumpers. -->
    {#if rows > 1}
      {#each Array.from({ length: rows - 1 }, (_, r) => r) as r (r)}
        <Copper
          x1={s.x + side}
          y1={top + (r + 1) * each - 24}
          x2={s.x + side}
          y2={top + (r + 1) * each + 24}
          thick={Math.min(14, thick(n.copper.jumper.areaMm2))}
          share={jumperShare(amps)}
          title="jumper {n.copper.jumper.size}"
        />
      {/each}
    {/if}
    {#each Array.from({ length: rows }, (_, r) => r) as r (r)}
      {@const apart = Math.min(18, each * 0.15)}
      {@const y1 = top + r * each + (r === 0 ? -6 : apart)}
      {@const y2 = top + (r + 1) * each - (r === rows - 1 ? -6 : apart)}
      <rect
        x={s.x - box / 2}
        y={y1}
        width={box}
        height={y2 - y1}
        class={['unit', gone && 'gone', bench.out === s.i + 1 && 'chosen']}
        role="button"
        tabindex="-1"
        data-stop
        data-unit="{s.name}{r + 1}"
        aria-label="unit {s.name}{r + 1}{gone ? ', out' : ''}. Press: what is said of it, and what if it drops out"
        onclick={() => {
          bench.unit = { string: s.i + 1, unit: r + 1 }
          bench.play(s.i + 1)
        }}
        onkeydown={() => {}}
      />
      {#if many}
        {#each Array.from({ length: bank.layout.series - 1 }, (_, c) => c) as c (c)}
          <line
            x1={s.x - box / 2}
            x2={s.x + box / 2}
            y1={y1 + ((c + 1) * (y2 - y1)) / bank.layout.series}
            y2={y1 + ((c + 1) * (y2 - y1)) / bank.layout.series}
            stroke="var(--hair)"
          />
        {/each}
      {/if}
      {@const mid = (y1 + y2) / 2}
      {#if y2 - y1 > 34 || many}
        <text
          x={s.x - (roomy ? side / 2.6 : 0)}
          y={mid + (y2 - y1 > 58 && roomy ? -6 : 5)}
          text-anchor="middle"
          class="fig"
          style:font-size={pitch > 60 ? '17px' : '13px'}>{s.name}{rows > 1 ? r + 1 : ''}</text
        >
        {#if y2 - y1 > 58 && roomy}
          <text x={s.x - side / 2.6} y={mid + 8} text-anchor="middle" class="faint">{saidAh(s.i + 1, r + 1)}</text>
          {@const more = saidMore(s.i + 1, r + 1)}
          {#if more}<text x={s.x - side / 2.6} y={mid + 21} text-anchor="middle" class="faint">{more}</text>
          {:else if y2 - y1 > 74 && itemAt(s.i + 1, r + 1) === bank.unit}<text
              x={s.x - side / 2.6}
              y={mid + 21}
              text-anchor="middle"
              class="faint">{bank.unitOhmAssumed ? '≈ ' : ''}{num(bank.unitOhm * 1000, 2)} mΩ</text
            >{/if}
        {/if}
      {/if}
      {@const disc = Math.min(9, (y2 - y1) / 5)}
      {#if !many && disc > 6}
        <circle
          cx={s.x + side}
          cy={r === 0 ? top : y1}
          r={disc}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="1.3"
        />
        <text
          x={s.x + side}
          y={(r === 0 ? top : y1) + 5}
          text-anchor="middle"
          style:font-size="14px"
          style:font-weight="700">+</text
        >
        <circle
          cx={s.x + side}
          cy={r === rows - 1 ? bottom : y2}
          r={disc}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="1.3"
        />
        <text
          x={s.x + side}
          y={(r === rows - 1 ? bottom : y2) + 5}
          text-anchor="middle"
          style:font-size="14px"
          style:font-weight="700">−</text
        >
      {/if}
    {/each}
    <!-- The string's amperes against what a unit allows. -->
    {#if roomy}
      {@const bx = s.x + box / 2 + 12}
      {@const [b1, b2] = bars ? [top + 6, bottom - 6] : [top + 34, bottom - 34]}
      <rect x={bx} y={b1} width="13" height={b2 - b1} fill="var(--sheet)" stroke="var(--ink)" />
      <rect
        x={bx}
        y={b2 - Math.min(1, amps / full) * (b2 - b1)}
        width="13"
        height={Math.min(1, amps / full) * (b2 - b1)}
        fill={amps > full * 1.000001 ? 'var(--ink)' : 'var(--copper)'}
      />
      {#if bank.layout.parallel > 1}
        {@const even = b2 - ((n.strings.evenShare * n.strings.bankA) / full) * (b2 - b1)}
        <line x1={bx - 4} x2={bx + 17} y1={even} y2={even} stroke="var(--ink)" stroke-width="2" />
      {/if}
      {@const my = (b1 + b2) / 2}
      {#if tried === null}
        <FigText
          ptr="/network/strings/shares/{s.i}"
          unit="fraction"
          label="string {s.name}’s share"
          x={bx + 22}
          y={my}
          size={pitch > 190 ? 24 : 19}
        />
        <FigText
          ptr="/network/strings/amps/{s.i}"
          unit="A"
          label="string {s.name} at full load"
          x={bx + 22}
          y={my + 20}
          size={15}
        />
      {:else}
        <text x={bx + 22} y={my + 6} class="fig tried" data-tried={s.name}>{gone ? 'out' : say(flow[s.i], 'A')}</text>
        {#if !gone && limitOf(s.i + 1) !== null && amps > limitOf(s.i + 1)! * 1.000001}<text
            x={bx + 22}
            y={my + 21}
            class="over">over {say(limitOf(s.i + 1)!, 'rating')}</text
          >{/if}
      {/if}
      <text x={bx + 22} y={my + 36} class="faint">string {s.name}</text>
      {#if s.i === bank.layout.parallel - 1 && limit !== null}
        <text x={bx + 20} y={b1 + 9} class="faint">{bank.unit.bms ? 'BMS' : 'unit'} {say(limit, 'rating')}</text>
      {/if}
    {:else}
      {#if tried === null}
        <FigText
          ptr="/network/strings/amps/{s.i}"
          unit="A"
          label="string {s.name} at full load"
          x={s.x}
          y={height - 6}
          anchor="middle"
          size={13}
        />
      {:else}
        <text x={s.x} y={height - 6} text-anchor="middle" class="fig" style:font-size="13px" data-tried={s.name}
          >{gone ? 'out' : say(flow[s.i], 'A')}</text
        >
      {/if}
    {/if}
    {#if s.i > 0 && n.wiring.style !== 'bus-bars'}
      {@const mx = (s.x + strings[s.i - 1].x) / 2}
      {#if pitch > 84 && tried === null}
        <FigText
          ptr="/network/links/positiveA/{s.i - 1}"
          unit="A"
          label="link {stringName(s.i)} to {s.name}, positive"
          x={mx}
          y={top - linkThick / 2 - 6}
          anchor="middle"
          size={14}
        />
        {#if roomy && n.wiring.style === 'diagonal'}
          <FigText
            ptr="/network/links/negativeA/{s.i - 1}"
            unit="A"
            label="link {stringName(s.i)} to {s.name}, negative"
            x={mx}
            y={bottom - linkThick / 2 - 5}
            anchor="middle"
            size={13}
          />
        {/if}
      {/if}
    {/if}
  {/each}
  {#if tried === null}
    <FigText
      ptr="/currents/bankWorstA"
      unit="A"
      label="whole bank at full load"
      x={edge}
      y={railTop - mainThick / 2 - 7}
      anchor="end"
      size={17}
    />
  {:else}
    <text x={edge} y={railTop - mainThick / 2 - 7} text-anchor="end" class="fig" style:font-size="17px"
      >{say(
        flow.reduce((sum, a) => sum + a, 0),
        'A',
      )}</text
    >
  {/if}
  <!-- Every conductor can be pointed at. -->
  {#each hits as h (h.index)}
    <rect
      x={h.x}
      y={h.y}
      width={h.w}
      height={h.h}
      class={['hit', bench.conductor === h.index && 'pointed']}
      role="button"
      tabindex="-1"
      data-stop
      data-conductor={h.index}
      aria-label={h.label}
      onclick={() => (bench.conductor = bench.conductor === h.index ? null : h.index)}
      onkeydown={() => {}}
    />
  {/each}
  <text x={edge} y={railTop + mainThick / 2 + 15} text-anchor="end" class="faint">to the fuse</text>
  <text x={edge} y={railBottom - mainThick / 2 - 7} text-anchor="end" class="faint">to the shunt</text>
  {#if bank.layout.parallel > 1 && roomy}
    <text x={MARGIN} y={height - 4} class="faint"
      >{n.wiring.style === 'bus-bars'
        ? `leads ${n.copper.lead.size}, ${say(n.copper.lead.lengthM, 'm')}`
        : `links ${n.copper.link.size}, ${say(n.copper.link.lengthM, 'm')}`}; {pxPerMm} px a mm; bright core: share of its
      ampacity in use; bar: share of what a unit allows, tick: even share</text
    >
  {/if}
</Drawing>

<style>
  .unit {
    fill: var(--page);
    stroke: var(--ink);
    cursor: pointer;
  }
  .unit.chosen {
    stroke-width: 2.5;
  }
  .unit.gone {
    fill: var(--sheet);
    stroke: none;
    stroke: var(--ink-3);
    stroke-dasharray: 4 3;
  }
  .tried {
    font-size: 19px;
  }
  .over {
    font-size: 11.5px;
    font-weight: 700;
  }
  .hit {
    fill: transparent;
    cursor: pointer;
  }
  .hit.pointed {
    stroke: var(--ink);
    stroke-width: 2;
  }
  text,
  circle {
    pointer-events: none;
  }
  .faint {
    fill: var(--ink-2);
  }
</style>
