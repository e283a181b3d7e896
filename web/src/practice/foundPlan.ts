import type { DrawnBank, FoundDrawing } from '../api/client'
import { type FoundPlan, LINE, Pen, bundle, reach, wrapped } from './foundPen'
import { beyond, stackOfSource } from './foundRuns'
import { units, widthsOf } from './foundUnits'

/** What a desk has for it. */
const WIDTH = 934
/** Above the positive rail: labels, and what goes over the top to the loads. */
const TOP = 50

interface Frame {
  left: number
  top: number
  height: number
  width: number
}

/** Where its rails lie: what leaves at the far end goes back under the words of the negative rail. */
function railsOf(b: DrawnBank, top: number, height: number) {
  const rail = Math.max(
    4,
    ...b.conductors.filter((c) => c.kind !== 'jumper').map((c) => bundle(c.copper.areaMm2, c.copper.conductors)),
  )
  const main = bundle(b.cable.areaMm2, b.cable.conductors)
  const far = b.style === 'diagonal' && b.parallel > 1
  const under = far ? Math.max(20, (rail + main) / 2 + 18) : 0
  const yMinus = top + height - 40 - Math.max(0, under - 20)
  return { rail, main, far, yPlus: top + TOP, yMinus, yBus: yMinus + under }
}

/** One bank between its rails, string A nearest to the main run. */
function bankOf(pen: Pen, b: DrawnBank, f: Frame): { right: number; bottom: number } {
  const w = widthsOf(b, f.width)
  const { col } = w
  const { rail, main, far, yPlus, yMinus, yBus } = railsOf(b, f.top, f.height)
  const x = (s: number) => f.left + (b.parallel - s) * col + col / 2
  const ux = f.left + b.parallel * col
  const bars = b.style === 'bus-bars'

  units(pen, b, { x, yPlus, yMinus, col, rail, bars, far })

  // Where the leads leave.
  const [xPlus, xMinus] = [
    b.parallel > 1 && bars ? ux - 6 : x(1),
    far ? x(b.parallel) : bars && b.parallel > 1 ? ux - 6 : x(1),
  ]
  const busX = ux + w.main
  pen.copper(`M${xPlus} ${yPlus}H${busX}`, main)
  pen.copper(far ? `M${xMinus} ${yMinus}V${yBus}H${busX}` : `M${xMinus} ${yBus}H${busX}`, main)
  if (b.takeOff) {
    pen.dot(xPlus, yPlus)
    pen.dot(xMinus, yMinus)
    pen.hit(b.takeOff, xPlus - 9, yPlus - 16, 22, 26)
    pen.hit(b.takeOff, xMinus - 9, yMinus - 8, 22, 26)
  }

  mainRun(pen, b, { ux, busX, yPlus, yBus, main, top: f.top })
  return beyond(pen, b, { busX, yPlus, yBus, yMinus, top: f.top, main, ux, tapX: x(1), widths: w })
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
  // Down to its rating: its class stands below the frame, not across its line.
  pen.hit(b.fuse.key, fuseX - 20, m.yPlus - 14, 40, 43)
  const cable = wrapped(b.cable.label, 22)
  cable.forEach((l, i) =>
    pen.text(m.ux + 82, m.yPlus - Math.max(m.main / 2 + 7, 18) - (cable.length - 1 - i) * LINE, l, {
      anchor: 'middle',
      faint: true,
      size: 11,
    }),
  )
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
    // Beside what stands in place of a switch it gives way.
    pen.text(m.busX + 12, m.yPlus + (b.switch.absent && b.switch.lines.length > 0 ? 53 : 27), b.bus.lines[0], {
      anchor: 'end',
      size: 11,
    })

  if (b.bonding) {
    if (!b.bonding.absent) {
      pen.copper(`M${m.busX - 5} ${m.yBus + 14}v9`, 3)
      pen.ink(`M${m.busX - 13} ${m.yBus + 23}h16m-13 4h10m-7 4h4`, 1.4)
      pen.text(m.busX - 20, m.yBus + 28, b.bonding.lines.join(' '), { anchor: 'end', faint: true, size: 11 })
    }
    pen.hit(b.bonding.key, m.busX - 16, m.yBus + 16, 24, 18)
  }
}

/** The whole drawing: one bank, or two with what joins them at their left. */
export function foundPlan(d: FoundDrawing, height = 470, width = WIDTH): FoundPlan {
  const pen = new Pen()
  const two = d.banks.length > 1
  const left = two ? 46 : 22
  // What a source says must go between its rails, and what hangs on the first bank beside it.
  const needs = (b: DrawnBank) => TOP + 40 + stackOfSource(b, widthsOf(b, width - left).source)
  const alone = (b: DrawnBank) => {
    const own = new Pen()
    return { ...bankOf(own, b, { left, top: 0, height, width: width - left }), reach: reach(own) }
  }
  const [above, below] = two ? [alone(d.banks[0]), alone(d.banks[1])] : []
  const meet = above && below && below.reach > above.right - widthsOf(d.banks[0], width - left).loads
  const beside = meet ? above.bottom - 12 : 0
  const first = Math.max(two ? Math.max(330, height * 0.58) : height, needs(d.banks[0]), beside)
  const second = two ? Math.max(226, height - first - 18) : 0
  let right = 0
  const tops = [0, first + 18]
  d.banks.forEach((b, i) => {
    const own = bankOf(pen, b, { left, top: tops[i], height: i === 0 ? first : second, width: width - left })
    right = Math.max(right, own.right)
  })
  if (two)
    d.joins.forEach((j, i) => {
      const w = 1.8
      const [x, y] = [8 + i * 100, first - 12]
      const upper = d.banks[0]
      const lower = d.banks[1]
      const at = (b: DrawnBank) => left + widthsOf(b, width - left).col / 2
      const [{ yPlus: a, yMinus: c }, { yPlus: e, yMinus: g }] = [
        railsOf(upper, tops[0], first),
        railsOf(lower, tops[1], second),
      ]
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
  return { width: Math.max(width, right), height: bottom + 8, shapes: pen.shapes, hits: pen.hits }
}
