import type { DrawnBank, DrawnRun, FoundDrawing } from '../api/client'

/** What a drawing of a bank as found is made of: geometry alone, every word on it came with it. */
export type Shape =
  | { t: 'copper'; d: string; w: number }
  | { t: 'ink'; d: string; w?: number; dash?: string }
  | { t: 'gap'; d: string; w: number }
  | { t: 'box'; x: number; y: number; w: number; h: number; heavy?: boolean; tint?: boolean }
  | {
      t: 'text'
      x: number
      y: number
      s: string
      size?: number
      anchor?: 'middle' | 'end'
      bold?: boolean
      fig?: boolean
      faint?: boolean
    }
  | { t: 'post'; x: number; y: number; sign: '+' | '−' }
  | { t: 'dot'; x: number; y: number }

/** Where one may press, and where a flag stands. */
export interface Hit {
  key: string
  x: number
  y: number
  w: number
  h: number
}

export interface FoundPlan {
  width: number
  height: number
  shapes: Shape[]
  hits: Hit[]
}

const MIN_WIDTH = 934
const PX_PER_MM = 2
const LINE = 13
/** Above the positive rail: labels, and what goes over the top to the loads. */
const TOP = 50

/** The thickness of a conductor: 2 px a mm of its diameter. */
export const thick = (areaMm2: number) => Math.max(1.2, PX_PER_MM * 2 * Math.sqrt(areaMm2 / Math.PI))

/** Several side by side, a hair between them. */
const bundle = (areaMm2: number, conductors: number) => thick(areaMm2) * conductors + 1.5 * (conductors - 1)

class Pen {
  shapes: Shape[] = []
  hits: Hit[] = []

  copper(d: string, w: number) {
    this.shapes.push({ t: 'copper', d, w })
  }
  ink(d: string, w = 1, dash?: string) {
    this.shapes.push({ t: 'ink', d, w, dash })
  }
  /** A line that crosses others leaves a gap in them. */
  over(d: string, w: number) {
    this.shapes.push({ t: 'gap', d, w: w + 5 })
    this.copper(d, w)
  }
  box(x: number, y: number, w: number, h: number, more: { heavy?: boolean; tint?: boolean } = {}) {
    this.shapes.push({ t: 'box', x, y, w, h, ...more })
  }
  text(
    x: number,
    y: number,
    s: string,
    more: { size?: number; anchor?: 'middle' | 'end'; bold?: boolean; fig?: boolean; faint?: boolean } = {},
  ) {
    if (s) this.shapes.push({ t: 'text', x, y, s, ...more })
  }
  post(x: number, y: number, sign: '+' | '−') {
    this.shapes.push({ t: 'post', x, y, sign })
  }
  dot(x: number, y: number) {
    this.shapes.push({ t: 'dot', x, y })
  }
  hit(key: string, x: number, y: number, w: number, h: number) {
    this.hits.push({ key, x, y, w, h })
  }

  /** A fuse lying in a horizontal line, or standing in an upright one. */
  fuse(cx: number, cy: number, upright: boolean, small = false) {
    const [a, b] = small ? [20, 13] : [34, 24]
    const [w, h] = upright ? [b, a] : [a, b]
    this.box(cx - w / 2, cy - h / 2, w, h)
    this.ink(upright ? `M${cx} ${cy - h / 2}V${cy + h / 2}` : `M${cx - w / 2} ${cy}H${cx + w / 2}`, small ? 1.4 : 2)
  }
}

/** Text broken where a line of so many letters ends; a figure and its unit stay together. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = []
  text = text.replace(/(\d) (?=(?:V|A|W|s|h|m|mm²|kg|Ah|mΩ|°C)(?![\p{L}]))/gu, '$1\u00a0')
  for (const word of text.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= letters) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

interface Frame {
  left: number
  top: number
  height: number
}

/** Width of a string's column. */
const columnOf = (strings: number) =>
  strings <= 1 ? 112 : strings === 2 ? 100 : strings === 3 ? 86 : strings === 4 ? 78 : 66

/** One bank between its rails, string A nearest to the main run. */
function bankOf(pen: Pen, b: DrawnBank, f: Frame): number {
  const col = columnOf(b.parallel)
  const rail = Math.max(
    4,
    ...b.conductors.filter((c) => c.kind !== 'jumper').map((c) => bundle(c.copper.areaMm2, c.copper.conductors)),
  )
  const main = bundle(b.cable.areaMm2, b.cable.conductors)
  const [yPlus, yMinus] = [f.top + TOP, f.top + f.height - 40]
  const x = (s: number) => f.left + (b.parallel - s) * col + col / 2
  const ux = f.left + b.parallel * col
  const bars = b.style === 'bus-bars'
  const far = b.style === 'diagonal' && b.parallel > 1
  const yBus = far ? yMinus + 20 : yMinus

  units(pen, b, { x, yPlus, yMinus, col, rail, bars, far })

  // Where the leads leave.
  const [xPlus, xMinus] = [
    b.parallel > 1 && bars ? ux - 6 : x(1),
    far ? x(b.parallel) : bars && b.parallel > 1 ? ux - 6 : x(1),
  ]
  const busX = ux + 190
  pen.copper(`M${xPlus} ${yPlus}H${busX}`, main)
  pen.copper(far ? `M${xMinus} ${yMinus}V${yBus}H${busX}` : `M${xMinus} ${yBus}H${busX}`, main)
  if (b.takeOff) {
    pen.dot(xPlus, yPlus)
    pen.dot(xMinus, yMinus)
    pen.hit(b.takeOff, xPlus - 9, yPlus - 16, 22, 26)
    pen.hit(b.takeOff, xMinus - 9, yMinus - 8, 22, 26)
  }

  mainRun(pen, b, { ux, busX, yPlus, yBus, main, top: f.top })
  const right = beyond(pen, b, { busX, yPlus, yBus, yMinus, top: f.top, main, ux, tapX: x(1) + col / 2 - 8 })
  return right
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

function units(pen: Pen, b: DrawnBank, r: Between) {
  const gap = b.series > 4 ? 9 : 16
  const fuseRoom = b.stringFuses ? 40 : 16
  const height = (r.yMinus - r.yPlus - fuseRoom - 16 - (b.series - 1) * gap) / b.series
  const w = r.col - 14
  const top = (u: number) => r.yPlus + fuseRoom + (u - 1) * (height + gap)
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
      const rows = unitRows(unit, w, Math.floor((height - (height > 60 ? 16 : 6)) / LINE))
      const first = y + (height - rows.length * LINE) / 2 + 10.5
      rows.forEach((row, i) => pen.text(cx - w / 2 + 5, first + i * LINE, row, { bold: i === 0 }))
      if (height > 60) {
        pen.post(cx, y, '+')
        pen.post(cx, y + height, '−')
      }
      if (unit.joint) pen.text(cx + w / 2 - 2, y - 3, unit.joint, { anchor: 'end', size: 11 })
      if (u < b.series) {
        const jumper = at('jumper', '', s, u)
        const thickness = jumper ? bundle(jumper.copper.areaMm2, jumper.copper.conductors) : r.rail
        pen.copper(`M${cx} ${y + height}V${y + height + gap}`, thickness)
        if (jumper) {
          pen.hit(jumper.copper.key, cx - w / 2, y + height, w, gap)
          const label = jumper.copper.label.split(', ')
          if (gap > 12) pen.text(cx + thickness / 2 + 5, y + height + gap / 2 + 4, label[0], { faint: true, size: 11 })
          if (label[2] && gap > 12)
            pen.text(cx - thickness / 2 - 5, y + height + gap / 2 + 4, label[2].replace('lug ', ''), {
              anchor: 'end',
              size: 11,
            })
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
export function unitRows(u: DrawnBank['units'][number], width: number, most: number): string[] {
  const letters = Math.floor((width - 8) / 6)
  const all =
    letters >= 15
      ? [u.name, `${u.volts} ${u.ah}`, u.kind, ...u.measured, ...u.plate]
      : [`${u.name} ${u.ah}`, u.volts, u.kind, ...u.measured, ...u.plate]
  // Where little fits, what sets it apart goes first.
  const order =
    most <= 3 ? [`${u.name} ${u.ah}`, ...(u.measured.length > 0 ? u.measured : [u.volts]), u.kind, ...u.plate] : all
  const rows: string[] = []
  // A line is there whole, or not at all: all of it is told once the unit is pressed.
  for (const line of order) {
    const more = wrapped(line, letters)
    if (rows.length + more.length <= Math.max(1, most)) rows.push(...more)
  }
  return rows
}

interface Main {
  ux: number
  busX: number
  yPlus: number
  yBus: number
  main: number
  top: number
}

function mainRun(pen: Pen, b: DrawnBank, m: Main) {
  const [fuseX, switchX, shuntX] = [m.ux + 46, m.ux + 126, m.ux + 90]
  if (!b.fuse.absent) {
    pen.fuse(fuseX, m.yPlus, false)
    pen.text(fuseX, m.yPlus + 27, b.fuse.lines[0] ?? '', { anchor: 'middle', fig: true, size: 13 })
    b.fuse.lines
      .slice(1)
      .flatMap((l) => wrapped(l, 15))
      .forEach((l, i) => pen.text(fuseX, m.yPlus + 40 + i * LINE, l, { anchor: 'middle', size: 11 }))
  }
  pen.hit(b.fuse.key, fuseX - 20, m.yPlus - 14, 40, 46)
  pen.text(m.ux + 82, m.yPlus - Math.max(m.main / 2 + 7, 18), b.cable.label, {
    anchor: 'middle',
    faint: true,
    size: 11,
  })
  pen.hit(b.cable.key, fuseX + 21, m.yPlus - 30, switchX - fuseX - 42, 36)
  if (!b.switch.absent) {
    pen.box(switchX - 17, m.yPlus - 12, 34, 24)
    pen.ink(`M${switchX - 10} ${m.yPlus + 5}L${switchX + 10} ${m.yPlus - 5}`, 2)
    pen.dot(switchX - 10, m.yPlus + 5)
    pen.dot(switchX + 10, m.yPlus - 5)
  }
  b.switch.lines
    .flatMap((l) => wrapped(l, 15))
    .forEach((l, i) => pen.text(switchX, m.yPlus + 27 + i * LINE, l, { anchor: 'middle', size: 11 }))
  pen.hit(b.switch.key, switchX - 20, m.yPlus - 14, 40, 46)

  pen.box(shuntX - 20, m.yBus - 11, 40, 22)
  pen.ink(`M${shuntX - 14} ${m.yBus - 5}h28m-28 5h28m-28 5h28`, 0.9)
  pen.text(shuntX, m.yBus - 16, 'shunt', { anchor: 'middle', size: 11 })
  pen.hit(b.shunt.key, shuntX - 22, m.yBus - 26, 44, 38)

  // Between what is written under the run and what is written over the shunt.
  const said = b.switch.lines.length
  const short = m.yBus - m.yPlus < 190
  const words = b.whole.lines.slice(1)
  const rows = short ? wrapped(words.join(', '), 24) : words.flatMap((l) => wrapped(l, 20))
  const [from, to] = [m.yPlus + 24 + LINE * Math.max(said, b.fuse.lines.length), m.yBus - 30]
  const first = (from + to) / 2 - (rows.length * LINE) / 2 + (short ? 4 : 0)
  pen.text(m.ux + 94, first, b.whole.lines[0] ?? '', { anchor: 'middle', fig: true, size: short ? 18 : 24 })
  rows.forEach((l, i) => pen.text(m.ux + 94, first + 15 + i * LINE, l, { anchor: 'middle', size: 11 }))
  pen.hit(b.whole.key, m.ux + 30, first - 22, 128, 28 + LINE * rows.length)

  for (const [y, sign] of [
    [m.yPlus, '+'],
    [m.yBus, '−'],
  ] as const) {
    pen.box(m.busX - 12, y - 14, 24, 28)
    pen.text(m.busX, y + 5, sign, { anchor: 'middle', bold: true, size: 15 })
    pen.hit(b.bus.key, m.busX - 14, y - 16, 28, 32)
  }
  if (b.bus.lines[0] && b.bus.lines[0] !== 'bus')
    pen.text(m.busX + 12, m.yPlus + 27, b.bus.lines[0], { anchor: 'end', size: 11 })

  if (b.bonding) {
    if (!b.bonding.absent) {
      pen.copper(`M${m.busX - 5} ${m.yBus + 14}v9`, 3)
      pen.ink(`M${m.busX - 13} ${m.yBus + 23}h16m-13 4h10m-7 4h4`, 1.4)
      pen.text(m.busX - 20, m.yBus + 28, b.bonding.lines.join(' '), { anchor: 'end', faint: true, size: 11 })
    }
    pen.hit(b.bonding.key, m.busX - 16, m.yBus + 16, 24, 18)
  }
}

interface Beyond {
  busX: number
  yPlus: number
  yBus: number
  yMinus: number
  top: number
  main: number
  ux: number
  tapX: number
}

/** Sources between the buses, the inverter behind them, loads at the right: those on DC above, those on AC below. */
function beyond(pen: Pen, b: DrawnBank, y: Beyond): number {
  const sources = b.runs.filter((r) => r.kind === 'source')
  const dc = b.runs.filter((r) => r.kind === 'load')
  const ac = b.runs.filter((r) => r.kind === 'ac-load')
  const bus = y.busX + 12
  const width = sources.length > 1 ? 108 : 124
  const inverterX = bus + 28 + sources.length * width
  const end = sources.length > 0 || b.inverter ? inverterX + (b.inverter ? 8 : -24) : bus
  if (end > bus) {
    pen.copper(`M${bus} ${y.yPlus}H${end}`, y.main)
    pen.copper(`M${bus} ${y.yBus}H${end}`, y.main)
  }
  const past = y.yBus + 28
  sources.forEach((s, i) => source(pen, s, { ...y, x: bus + 22 + i * width + 14, width: width - 8, past }))

  let right = inverterX
  if (b.inverter) {
    const w = 102
    pen.box(inverterX, y.yPlus - 14, w, y.yBus - y.yPlus + 28)
    const lines = b.inverter.lines.flatMap((l, i) => (i === 0 ? [l] : wrapped(l, 18)))
    const first = (y.yPlus + y.yBus) / 2 - (lines.length * LINE) / 2
    pen.text(inverterX + w / 2, first, lines[0] ?? '', { anchor: 'middle', fig: true, size: 19 })
    lines
      .slice(1)
      .forEach((l, i) => pen.text(inverterX + w / 2, first + 18 + i * LINE, l, { anchor: 'middle', size: 11 }))
    pen.hit(b.inverter.key, inverterX, y.yPlus - 14, w, y.yBus - y.yPlus + 28)
    right = inverterX + w
  }
  const column = right + 34
  let at = y.top + 14
  // What is fed from the bus goes over the top, and comes back beside the bus.
  const feeds: { run: DrawnRun; under: DrawnRun[] }[] = [
    ...(b.panel ? [{ run: b.panel, under: dc.filter((l) => l.onPanel) }] : []),
    ...dc.filter((l) => !l.onPanel && l.tap === null).map((run) => ({ run, under: [] })),
  ]
  let [used, left] = [0, 0]
  feeds.forEach((feed, i) => {
    // The lower row takes the lower lanes and turns down further left: nothing crosses on the way.
    const w = feed.run.copper ? bundle(feed.run.copper.areaMm2, feed.run.copper.conductors) : 1.2
    const lane = {
      up: y.top + 3 + w / 2 + used,
      down: y.top + 6 + 1.5 * w + used,
      turn: column - 6 - w / 2 - (w + 5) - left,
      feedX: y.busX - 5 + i * 9,
      back: bus + 7 + w / 2 + i * 8,
    }
    used += 2 * w + 8
    left += 2 * w + 10
    at = load(pen, feed.run, { x: column, y: at, past, bus: y, ...lane })
    const trunk = at - 4
    for (const l of feed.under) at = small(pen, l, column + 12, at, column + 4, trunk)
  })
  for (const l of dc.filter((d) => d.tap !== null && !d.onPanel)) at = tapped(pen, l, column, at, y, b)
  at = Math.max(at + 4, y.yPlus + 20)
  for (const l of ac) {
    const rows = l.thing.lines.slice(1).flatMap((x) => wrapped(x, 24))
    pen.ink(`M${right} ${at + 8}H${column}`, 1.4)
    pen.text(column + 5, at + 12, l.thing.lines[0] ?? '', { bold: true })
    rows.forEach((row, n) => pen.text(column + 5, at + 12 + (n + 1) * LINE, row, { size: 11 }))
    pen.hit(l.thing.key, column, at, 156, 16 + rows.length * LINE)
    at += 24 + rows.length * LINE
  }
  return column + 160
}

function source(pen: Pen, s: DrawnRun, y: Beyond & { x: number; width: number; past: number }) {
  const { x } = y
  const w = s.copper ? bundle(s.copper.areaMm2, s.copper.conductors) : 2
  const fuseY = y.yPlus + 30
  const lines = s.thing.lines.flatMap((l) => wrapped(l, Math.floor((y.width - 8) / 5.9)))
  const front = s.front?.lines.flatMap((l) => wrapped(l, Math.floor((y.width - 8) / 5.9))) ?? []
  const height = lines.length * LINE + 8
  const frontHeight = front.length > 0 ? front.length * LINE + 8 : 0
  const room = y.yBus - 24 - (y.yPlus + 62)
  const top = y.yPlus + 62 + Math.max(0, (room - height - (frontHeight > 0 ? frontHeight + 8 : 0)) / 2)
  const left = x - 14
  pen.copper(`M${x} ${y.yPlus}V${top}`, w)
  if (s.pastShunt) {
    pen.over(`M${x} ${top}V${y.past}H${y.ux + 8}V${y.yBus}`, w)
  } else pen.copper(`M${x} ${top}V${y.yBus}`, w)
  if (s.fuse && !s.fuse.absent) {
    pen.fuse(x, fuseY, true, true)
    const said = s.fuse.lines
    pen.text(x + 12, fuseY - 4, said[0] ?? '', { fig: true, size: 12 })
    said
      .slice(1)
      .flatMap((l) => wrapped(l, 15))
      .slice(0, 2)
      .forEach((l, i) => pen.text(x + 12, fuseY + 8 + i * 11.5, l, { size: 11 }))
  }
  pen.box(left, top, y.width, height)
  lines.forEach((l, i) => pen.text(left + 5, top + 13 + i * LINE, l, { size: i === 0 ? undefined : 11, bold: i === 0 }))
  pen.hit(s.thing.key, left, y.yPlus + 16, y.width, top + height - y.yPlus - 16)
  if (s.front) {
    const under = top + height + 8
    pen.ink(`M${left + y.width - 14} ${top + height}V${under}`, 1.4)
    pen.box(left + 8, under, y.width - 8, frontHeight, { tint: true })
    front.forEach((l, i) => pen.text(left + 13, under + 13 + i * LINE, l, { size: 11 }))
    pen.hit(s.front.key, left + 8, under, y.width - 8, frontHeight)
  }
  if (s.copper) pen.text(x + w / 2 + 4, y.yBus - y.main / 2 - 6, s.copper.label, { faint: true, size: 11 })
}

interface Feed {
  x: number
  y: number
  /** Lanes over the top, out and back, and where they turn down. */
  up: number
  down: number
  turn: number
  feedX: number
  back: number
  past: number
  bus: Beyond
}

/** A load, or the panel, with its fuse in the line that comes over the top. */
function load(pen: Pen, l: DrawnRun, f: Feed): number {
  const w = l.copper ? bundle(l.copper.areaMm2, l.copper.conductors) : 1.2
  const panel = l.kind === 'panel'
  const y = f.y + 8
  const lines = l.thing.lines.slice(panel ? 0 : 1).flatMap((t) => wrapped(t, 24))
  pen.over(`M${f.feedX} ${f.bus.yPlus - 14}V${f.up}H${f.turn + w + 4}V${y}H${f.x}`, w)
  if (l.pastShunt)
    pen.over(`M${f.x} ${y + w + 4}H${f.turn}V${f.down}H${f.back}V${f.past}H${f.bus.ux + 8}V${f.bus.yBus}`, w)
  else pen.over(`M${f.x} ${y + w + 4}H${f.turn}V${f.down}H${f.back}V${f.bus.yBus - f.bus.main / 2}`, w)
  const box = 128
  const said = [...(l.fuse && !l.fuse.absent ? l.fuse.lines : []), l.copper?.label ?? '']
  if (l.fuse && !l.fuse.absent) pen.fuse(f.x + 14, y, false, true)
  else pen.copper(`M${f.x} ${y}h28`, w)
  pen.text(f.x + 30, y + 4, said[0] ?? '', { fig: l.fuse !== null && !l.fuse.absent, size: 12 })
  const rest = said.slice(1).flatMap((t) => wrapped(t, 24))
  rest.forEach((t, i) => pen.text(f.x + 5, y + 17 + i * LINE, t, { size: 11, faint: true }))
  let at = y + 17 + rest.length * LINE
  const head = panel ? lines : [l.thing.lines[0] ?? '', ...lines]
  head.forEach((t, i) => pen.text(f.x + 5, at + i * LINE, t, { bold: i === 0, size: i === 0 ? undefined : 11 }))
  at += head.length * LINE
  pen.hit(l.thing.key, f.x, f.y, box, at - f.y - 6)
  return at + 4
}

/** A load of the panel. */
function small(pen: Pen, l: DrawnRun, x: number, y: number, trunk: number, from: number): number {
  const w = l.copper ? bundle(l.copper.areaMm2, l.copper.conductors) : 1.2
  const at = y + 6
  pen.copper(`M${trunk} ${from}V${at}H${x}`, w)
  const fused = l.fuse !== null && !l.fuse.absent
  if (fused) pen.fuse(x + 12, at, false, true)
  else pen.copper(`M${x} ${at}h24`, w)
  pen.text(x + 26, at + 4, fused ? (l.fuse!.lines[0] ?? '') : '', { fig: true, size: 12 })
  const rows = [
    ...(fused ? l.fuse!.lines.slice(1) : []),
    l.copper?.label ?? '',
    ...(l.pastShunt ? ['its negative goes to the bank’s post'] : []),
  ].flatMap((t) => wrapped(t, 25))
  const words = [`${l.thing.lines[0]}, ${l.thing.lines[1] ?? ''}`, ...l.thing.lines.slice(2)].flatMap((t) =>
    wrapped(t, 22),
  )
  ;[...words, ...rows].forEach((t, i) =>
    pen.text(x + 4, at + 17 + i * LINE, t, { size: 11, bold: i === 0, faint: i >= words.length }),
  )
  const end = at + 17 + (words.length + rows.length) * LINE
  pen.hit(l.thing.key, x, y - 2, 140, end - y - 8)
  return end + 2
}

/** A load that leaves the first string in its middle. */
function tapped(pen: Pen, l: DrawnRun, x: number, y: number, f: Beyond, b: DrawnBank): number {
  const gap = b.series > 4 ? 9 : 16
  const room = b.stringFuses ? 38 : 16
  const height = (f.yMinus - f.yPlus - room - 16 - (b.series - 1) * gap) / b.series
  const w = l.copper ? thick(l.copper.areaMm2) : 1.2
  const from = f.yMinus - 16 - l.tap! * height - (l.tap! - 0.5) * gap
  const bottom = f.yBus + 34
  const cx = f.tapX - columnOf(b.parallel) / 2 + 8
  pen.dot(cx, from)
  pen.over(`M${cx} ${from}H${f.ux + 2}V${bottom}H${x - 6}V${y + 8}H${x}`, w)
  const fused = l.fuse !== null && !l.fuse.absent
  if (fused) {
    pen.fuse(x + 14, y + 8, false, true)
    pen.text(x + 30, y + 12, l.fuse!.lines[0] ?? '', { fig: true, size: 12 })
  }
  const rows = [l.thing.lines[0] ?? '', ...l.thing.lines.slice(1), l.copper?.label ?? ''].flatMap((t) => wrapped(t, 24))
  rows.forEach((t, i) => pen.text(x + 5, y + 26 + i * LINE, t, { bold: i === 0, size: i === 0 ? undefined : 11 }))
  pen.hit(l.thing.key, x, y, 150, 26 + rows.length * LINE)
  return y + 30 + rows.length * LINE
}

/** The whole drawing: one bank, or two with what joins them at their left. */
export function foundPlan(d: FoundDrawing, height = 470): FoundPlan {
  const pen = new Pen()
  const two = d.banks.length > 1
  const left = two ? 46 : 22
  const first = two ? Math.max(330, height * 0.58) : height
  const second = two ? Math.max(226, height - first - 18) : 0
  let right = 0
  const tops = [0, first + 18]
  d.banks.forEach((b, i) => {
    right = Math.max(right, bankOf(pen, b, { left, top: tops[i], height: i === 0 ? first : second }))
  })
  if (two)
    d.joins.forEach((j, i) => {
      const w = 1.8
      const [x, y] = [8 + i * 100, first - 12]
      const upper = d.banks[0]
      const lower = d.banks[1]
      const at = (b: DrawnBank) => left + columnOf(b.parallel) / 2
      const [a, c] = [tops[0] + TOP, tops[0] + first - 40]
      const [e, g] = [tops[1] + TOP, tops[1] + second - 40]
      pen.copper(`M${at(upper)} ${a}H${10 + i * 8}V${y}`, w)
      pen.copper(`M${at(upper)} ${c}H${26 + i * 8}V${y}`, w)
      pen.copper(`M${at(lower)} ${e}H${26 + i * 8}V${y + 30}`, w)
      pen.copper(`M${at(lower)} ${g}H${10 + i * 8}V${y + 30}`, w)
      pen.box(x, y - 4, 94, 36)
      pen.text(x + 6, y + 10, j.lines[0] ?? '', { bold: true })
      pen.text(x + 6, y + 24, j.lines.slice(1).join(', '), { size: 11 })
      pen.hit(j.key, x, y - 4, 94, 36)
    })
  const bottom = two ? tops[1] + second + 14 : first + 14
  const words = d.place.lines.join('; ')
  pen.text(left, bottom, words, { faint: true, size: 11 })
  pen.hit(d.place.key, left - 4, bottom - 13, 6 * words.length + 8, 18)
  return { width: Math.max(MIN_WIDTH, right), height: bottom + 8, shapes: pen.shapes, hits: pen.hits }
}
