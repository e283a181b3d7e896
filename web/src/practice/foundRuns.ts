import type { DrawnBank, DrawnRun } from '../api/client'
import { LINE, type Pen, bundle, thick, wrapped } from './foundPen'
import { type Widths, stackOf } from './foundUnits'

export interface Beyond {
  busX: number
  yPlus: number
  yBus: number
  yMinus: number
  top: number
  main: number
  ux: number
  tapX: number
  widths: Widths
}

/** Sources between the buses, the inverter behind them, loads at the right: those on DC above, those on AC below. */
export function beyond(pen: Pen, b: DrawnBank, y: Beyond): { right: number; bottom: number } {
  const sources = b.runs.filter((r) => r.kind === 'source')
  const dc = b.runs.filter((r) => r.kind === 'load')
  const ac = b.runs.filter((r) => r.kind === 'ac-load')
  const bus = y.busX + 12
  const width = y.widths.source
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
    const w = y.widths.inverter
    pen.box(inverterX, y.yPlus - 14, w, y.yBus - y.yPlus + 28)
    const lines = b.inverter.lines.flatMap((l, i) => (i === 0 ? [l] : wrapped(l, Math.floor(w / 5.7))))
    const first = (y.yPlus + y.yBus) / 2 - (lines.length * LINE) / 2
    pen.text(inverterX + w / 2, first, lines[0] ?? '', { anchor: 'middle', fig: true, size: 19 })
    lines
      .slice(1)
      .forEach((l, i) => pen.text(inverterX + w / 2, first + 18 + i * LINE, l, { anchor: 'middle', size: 11 }))
    pen.hit(b.inverter.key, inverterX, y.yPlus - 14, w, y.yBus - y.yPlus + 28)
    right = inverterX + w
  }
  const column = right + y.widths.gap
  const letters = Math.floor((y.widths.loads - 6) / 5.6)
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
      // Where no rail goes on behind the bus its own copper ends at it, one below the other.
      end: end > bus ? `V${y.yBus - y.main / 2}` : `V${y.yBus - 6 + i * 6}H${bus}`,
    }
    used += 2 * w + 8
    left += 2 * w + 10
    at = load(pen, feed.run, { x: column, y: at, past, bus: y, letters, ...lane })
    const trunk = at - 4
    for (const l of feed.under) at = small(pen, l, column + 12, at, column + 4, trunk, letters - 2)
  })
  for (const l of dc.filter((d) => d.tap !== null && !d.onPanel)) at = tapped(pen, l, column, at, y, b)
  at = Math.max(at + 4, y.yPlus + 20)
  for (const l of ac) {
    const rows = l.thing.lines.slice(1).flatMap((x) => wrapped(x, letters))
    // From the inverter, and where they stand below it from one line down beside it.
    pen.ink(
      at + 8 < y.yBus + 10 ? `M${right} ${at + 8}H${column}` : `M${right} ${y.yBus}H${right + 14}V${at + 8}H${column}`,
      1.4,
    )
    pen.text(column + 5, at + 12, l.thing.lines[0] ?? '', { bold: true })
    rows.forEach((row, n) => pen.text(column + 5, at + 12 + (n + 1) * LINE, row, { size: 11 }))
    pen.hit(l.thing.key, column, at, y.widths.loads - 4, 16 + rows.length * LINE)
    at += 24 + rows.length * LINE
  }
  return { right: column + y.widths.loads, bottom: at }
}

/** What is written on a source, and on the modules before it. */
const rowsOf = (s: DrawnRun, width: number) =>
  [s.thing.lines, s.front?.lines ?? []].map((lines) => lines.flatMap((l) => wrapped(l, Math.floor((width - 8) / 5.9))))

const heightOf = (rows: string[]) => (rows.length > 0 ? rows.length * LINE + 8 : 0)

/** Above and below the boxes of a source: its fuse, and the words of its cable. */
const [OVER, UNDER] = [62, 30]

/** From rail to rail, as the tallest source wants it. */
export function stackOfSource(b: DrawnBank, width: number): number {
  const all = b.runs.filter((r) => r.kind === 'source').map((s) => rowsOf(s, width - 8).map(heightOf))
  return OVER + UNDER + Math.max(0, ...all.map(([device, front]) => device + (front > 0 ? front + 8 : 0)))
}

function source(pen: Pen, s: DrawnRun, y: Beyond & { x: number; width: number; past: number }) {
  const { x } = y
  const w = s.copper ? bundle(s.copper.areaMm2, s.copper.conductors) : 2
  const fuseY = y.yPlus + 30
  const [lines, front] = rowsOf(s, y.width)
  const height = heightOf(lines)
  const frontHeight = heightOf(front)
  const room = y.yBus - UNDER - (y.yPlus + OVER)
  const top = y.yPlus + OVER + Math.max(0, (room - height - (frontHeight > 0 ? frontHeight + 8 : 0)) / 2)
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
  /** Where its negative ends. */
  end: string
  past: number
  bus: Beyond
  /** A line of so many. */
  letters: number
}

/** A load, or the panel, with its fuse in the line that comes over the top. */
function load(pen: Pen, l: DrawnRun, f: Feed): number {
  const w = l.copper ? bundle(l.copper.areaMm2, l.copper.conductors) : 1.2
  const panel = l.kind === 'panel'
  const y = f.y + 8
  const lines = l.thing.lines.slice(panel ? 0 : 1).flatMap((t) => wrapped(t, f.letters))
  pen.over(`M${f.feedX} ${f.bus.yPlus - 14}V${f.up}H${f.turn + w + 4}V${y}H${f.x}`, w)
  if (l.pastShunt)
    pen.over(`M${f.x} ${y + w + 4}H${f.turn}V${f.down}H${f.back}V${f.past}H${f.bus.ux + 8}V${f.bus.yBus}`, w)
  else pen.over(`M${f.x} ${y + w + 4}H${f.turn}V${f.down}H${f.back}${f.end}`, w)
  const box = Math.min(128, f.bus.widths.loads - 4)
  const said = [...(l.fuse && !l.fuse.absent ? l.fuse.lines : []), l.copper?.label ?? '']
  if (l.fuse && !l.fuse.absent) pen.fuse(f.x + 14, y, false, true)
  else pen.copper(`M${f.x} ${y}h28`, w)
  pen.text(f.x + 30, y + 4, said[0] ?? '', { fig: l.fuse !== null && !l.fuse.absent, size: 12 })
  const rest = said.slice(1).flatMap((t) => wrapped(t, f.letters))
  rest.forEach((t, i) => pen.text(f.x + 5, y + 17 + i * LINE, t, { size: 11, faint: true }))
  let at = y + 17 + rest.length * LINE
  const head = panel ? lines : [l.thing.lines[0] ?? '', ...lines]
  head.forEach((t, i) => pen.text(f.x + 5, at + i * LINE, t, { bold: i === 0, size: i === 0 ? undefined : 11 }))
  at += head.length * LINE
  pen.hit(l.thing.key, f.x, f.y, box, at - f.y - 6)
  return at + 4
}

/** A load of the panel. */
function small(pen: Pen, l: DrawnRun, x: number, y: number, trunk: number, from: number, letters: number): number {
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
  ].flatMap((t) => wrapped(t, letters))
  const words = [`${l.thing.lines[0]}, ${l.thing.lines[1] ?? ''}`, ...l.thing.lines.slice(2)].flatMap((t) =>
    wrapped(t, letters - 2),
  )
  ;[...words, ...rows].forEach((t, i) =>
    pen.text(x + 4, at + 17 + i * LINE, t, { size: 11, bold: i === 0, faint: i >= words.length }),
  )
  const end = at + 17 + (words.length + rows.length) * LINE
  pen.hit(l.thing.key, x, y - 2, 6 * letters, end - y - 8)
  return end + 2
}

/** A load that leaves the first string in its middle. */
function tapped(pen: Pen, l: DrawnRun, x: number, y: number, f: Beyond, b: DrawnBank): number {
  const { gap, top } = stackOf(b, f.yPlus, f.yMinus)
  const w = l.copper ? thick(l.copper.areaMm2) : 1.2
  // Counted from the negative end, in the middle of the jumper there.
  const from = top(b.series - l.tap! + 1) - gap / 2
  const bottom = f.yBus + 34
  const cx = f.tapX
  pen.dot(cx, from)
  pen.over(`M${cx} ${from}H${f.ux + 2}V${bottom}H${x - 6}V${y + 8}H${x}`, w)
  const fused = l.fuse !== null && !l.fuse.absent
  if (fused) {
    pen.fuse(x + 14, y + 8, false, true)
    pen.text(x + 30, y + 12, l.fuse!.lines[0] ?? '', { fig: true, size: 12 })
  }
  const rows = [l.thing.lines[0] ?? '', ...l.thing.lines.slice(1), l.copper?.label ?? ''].flatMap((t) =>
    wrapped(t, Math.floor((f.widths.loads - 6) / 5.6)),
  )
  rows.forEach((t, i) => pen.text(x + 5, y + 26 + i * LINE, t, { bold: i === 0, size: i === 0 ? undefined : 11 }))
  pen.hit(l.thing.key, x, y, f.widths.loads - 4, 26 + rows.length * LINE)
  return y + 30 + rows.length * LINE
}
