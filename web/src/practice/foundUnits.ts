import type { DrawnBank } from '../api/client'
import { LINE, type Pen, bundle, wrapped } from './foundPen'

/** How wide its columns are. */
export interface Widths {
  /** A string. */
  col: number
  /** From the strings to the bus. */
  main: number
  source: number
  inverter: number
  /** Before the loads, and the loads. */
  gap: number
  loads: number
}

/** As wide as they like, and as narrow as they must where a bank would not go into its room. */
export function widthsOf(b: DrawnBank, room: number): Widths {
  const strings = b.parallel
  const sources = b.runs.filter((r) => r.kind === 'source').length
  const total = (w: Widths) =>
    strings * w.col +
    w.main +
    (sources > 0 || b.inverter ? 40 : 12) +
    sources * w.source +
    (b.inverter ? w.inverter : 0) +
    w.gap +
    w.loads
  const usual: Widths = {
    col: strings <= 1 ? 112 : strings === 2 ? 100 : strings === 3 ? 86 : strings === 4 ? 78 : 66,
    main: 190,
    source: sources > 1 ? 108 : 124,
    inverter: 102,
    gap: 34,
    loads: 160,
  }
  const least: Widths = { ...usual, col: strings <= 4 ? 59 : 55, source: 94, inverter: 92, gap: 28, loads: 136 }
  const over = total(usual) - room
  const give = total(usual) - total(least)
  const t = over <= 0 ? 0 : Math.min(1, over / give)
  const between = (k: keyof Widths) => Math.floor(usual[k] + t * (least[k] - usual[k]))
  return {
    col: between('col'),
    main: usual.main,
    source: between('source'),
    inverter: between('inverter'),
    gap: between('gap'),
    loads: between('loads'),
  }
}

/** How the units of a string stand between the rails: their height, the gap between them, and where each begins. */
export function stackOf(b: DrawnBank, yPlus: number, yMinus: number) {
  const gap = b.series > 4 ? 9 : 16
  const fuses = b.stringFuses ? 40 : 16
  const height = (yMinus - yPlus - fuses - 16 - (b.series - 1) * gap) / b.series
  return { gap, height, top: (u: number) => yPlus + fuses + (u - 1) * (height + gap) }
}

interface Between {
  x: (s: number) => number
  yPlus: number
  yMinus: number
  col: number
  rail: number
  bars: boolean
  far: boolean
}

export function units(pen: Pen, b: DrawnBank, r: Between) {
  const { gap, height, top } = stackOf(b, r.yPlus, r.yMinus)
  const w = r.col - 14
  const at = (kind: string, rail: string, s: number, after: number) =>
    b.conductors.find(
      (c) =>
        c.kind === kind &&
        (kind === 'jumper'
          ? c.string === s && c.after === after
          : kind === 'link'
            ? c.rail === rail && c.after === after
            : c.rail === rail && c.string === s),
    )

  if (r.bars && b.parallel > 1)
    for (const y of [r.yPlus, r.yMinus])
      pen.box(r.x(b.parallel) - 10, y - 5, r.x(1) - r.x(b.parallel) + r.col / 2 + 6, 10, { tint: true })

  for (let s = 1; s <= b.parallel; s++) {
    const cx = r.x(s)
    for (const [rail, y0, y1] of [
      ['positive', r.yPlus, top(1)],
      ['negative', top(b.series) + height, r.yMinus],
    ] as const) {
      const lead = at('lead', rail, s, 0)
      const thickness = lead ? bundle(lead.copper.areaMm2, lead.copper.conductors) : r.rail
      pen.copper(`M${cx} ${y0}V${y1}`, thickness)
      if (lead) {
        const plus = rail === 'positive'
        pen.hit(
          lead.copper.key,
          cx - r.col / 2 + 2,
          plus ? y0 + 8 : y0,
          r.col / 2 - 4,
          plus ? Math.max(12, y1 - y0 - 8) : y1 - y0,
        )
        const label = lead.copper.label.split(', ')
        // Beside the bars at the end that has room; the rest is told when it is pressed.
        if (plus || label.length > 2) {
          const rows = plus ? label : label.slice(2)
          rows.forEach((l, i) =>
            pen.text(cx + thickness / 2 + 4, (plus ? r.yPlus - 7 : r.yMinus + 16) - (rows.length - 1 - i) * LINE, l, {
              faint: true,
            }),
          )
        }
      }
    }
    if (b.stringFuses) {
      if (!b.stringFuses.absent) {
        pen.fuse(cx, r.yPlus + 20, true, true)
        if (s === b.parallel)
          pen.text(cx - 11, r.yPlus + 24, b.stringFuses.lines[0] ?? '', { anchor: 'end', fig: true, size: 12 })
      }
      pen.hit(b.stringFuses.key, cx - 9, r.yPlus + 8, 18, 26)
    }
    for (let u = 1; u <= b.series; u++) {
      const unit = b.units.find((n) => n.string === s && n.unit === u)!
      const y = top(u)
      pen.box(cx - w / 2, y, w, height, { tint: true })
      pen.hit(unit.key, cx - w / 2, y, w, height)
      const rows = unitRows(
        { ...unit, measured: [...(unit.joint ? [unit.joint] : []), ...unit.measured] },
        w,
        Math.floor((height - (height > 60 ? 16 : 6)) / LINE),
        b.units.some((n) => n.volts !== unit.volts),
      )
      const first = y + (height - rows.length * LINE) / 2 + 10.5
      rows.forEach((row, i) => pen.text(cx - w / 2 + 5, first + i * LINE, row, { bold: i === 0 }))
      if (height > 60) {
        pen.post(cx, y, '+')
        pen.post(cx, y + height, '−')
      }
      if (u < b.series) {
        const jumper = at('jumper', '', s, u)
        const thickness = jumper ? bundle(jumper.copper.areaMm2, jumper.copper.conductors) : r.rail
        pen.copper(`M${cx} ${y + height}V${y + height + gap}`, thickness)
        if (jumper) {
          pen.hit(jumper.copper.key, cx - w / 2, y + height, w, gap)
          const label = jumper.copper.label.split(', ')
          // A measured lug stands there instead of the size, which its neighbours tell and a press does.
          const said = label[2]?.replace('lug ', '') ?? label[0]
          if (gap > 12) pen.text(cx + thickness / 2 + 5, y + height + gap / 2 + 4, said, { faint: !label[2], size: 11 })
        }
      }
    }
    if (s < b.parallel && !r.bars)
      for (const [rail, y, up] of [
        ['positive', r.yPlus, true],
        ['negative', r.yMinus, false],
      ] as const) {
        const link = at('link', rail, s, s)
        const thickness = link ? bundle(link.copper.areaMm2, link.copper.conductors) : r.rail
        pen.copper(`M${r.x(s + 1)} ${y}H${r.x(s)}`, thickness)
        if (!link) continue
        pen.hit(link.copper.key, r.x(s + 1) + 10, y - 12, r.col - 20, 24)
        const label = link.copper.label.split(', ')
        const mid = (r.x(s) + r.x(s + 1)) / 2
        pen.text(mid, up ? y - thickness / 2 - 5 : y + thickness / 2 + 13, label[0], {
          anchor: 'middle',
          faint: true,
          size: 11,
        })
        if (label[2])
          pen.text(mid, up ? y - thickness / 2 - 18 : y + thickness / 2 + 26, label[2], { anchor: 'middle', size: 11 })
      }
  }
}

/** As much of a unit's plate as there is room for: what was measured before what is printed. */
export function unitRows(u: DrawnBank['units'][number], width: number, most: number, otherVolts = false): string[] {
  const letters = Math.floor((width - 8) / 6)
  const all =
    letters >= 15
      ? [u.name, `${u.volts} ${u.ah}`, u.kind, ...u.measured, ...u.plate]
      : letters < 8
        ? [u.name, u.ah, u.volts, ...u.measured, u.kind]
        : [`${u.name} ${u.ah}`, u.volts, u.kind, ...u.measured, ...u.plate]
  // Where little fits, what sets it apart goes first.
  const first = letters >= 9 ? `${u.name} ${u.ah}` : otherVolts ? u.volts : u.ah
  const order = most <= 3 ? [first, ...(u.measured.length > 0 ? u.measured : [u.volts]), u.kind, ...u.plate] : all
  const rows: string[] = []
  // A line is there whole, or not at all: all of it is told once the unit is pressed.
  for (const line of order) {
    const more = wrapped(line, letters)
    if (rows.length + more.length <= Math.max(1, most)) rows.push(...more)
  }
  return rows
}
