import type { Schemas } from '../../api/client'

/** Where the parts of an AC side stand on paper: columns by what feeds them, rows by where their feeders stand. Lengths only. */

export type AcPart = Schemas['AcPart']
export type AcWire = Schemas['AcWire']
export interface Placed {
  part: AcPart
  x: number
  y: number
  w: number
  h: number
}
export interface Line {
  wire: AcWire
  index: number
  d: string
  /** Where its position is written, at the switch it is closed by. */
  mark: { x: number; y: number; anchor: 'start' | 'end' } | null
}

export const isSwitch = (p: AcPart) => p.kind === 'transfer' || p.kind === 'selector'
export const feeds = (p: AcPart) => p.kind === 'plug' || p.kind === 'generator' || p.kind === 'inverter'
export const positionsOf = (p: AcPart) => Math.max(2, p.positions.length)
export const nameOf = (p: AcPart) => p.name || p.kind
export const positionName = (p: AcPart, n: number) => p.positions[n - 1] || String(n)

const LEAF = 30
const GAP = 14

/** @param order ids of the parts column by column, as the core arranges them; a part it does not know yet stands last. */
export function layout(
  parts: AcPart[],
  wires: AcWire[],
  order: string[][],
  width: number,
): { placed: Placed[]; lines: Line[]; height: number } {
  const byId = new Map(parts.map((p) => [p.id, p]))
  const known = new Set(order.flat())
  const columns = [...order, parts.filter((p) => !known.has(p.id)).map((p) => p.id)]
    .map((ids) => ids.map((id) => byId.get(id)).filter((p) => p !== undefined))
    .filter((column) => column.length > 0)
  const count = Math.max(1, columns.length)
  const wide = Math.max(84, Math.min(150, (width - 16) / count - 44))
  const pitch = count > 1 ? (width - 12 - wide) / (count - 1) : 0
  const tall = (p: AcPart) => (isSwitch(p) ? 26 + 17 * positionsOf(p) : p.kind === 'circuit' ? LEAF : 44)
  const placed = new Map<string, Placed>()
  let height = 0
  columns.forEach((column, c) => {
    const wanted = (p: AcPart) => {
      const from = wires
        .filter((w) => w.to === p.id || w.from === p.id)
        .map((w) => placed.get(w.to === p.id ? w.from : w.to))
        .filter((x) => x !== undefined)
      return from.length > 0 ? from.reduce((sum, x) => sum + x.y + x.h / 2, 0) / from.length : null
    }
    const total = column.reduce((sum, p) => sum + tall(p) + GAP, -GAP)
    const feeders = column.map(wanted).filter((at) => at !== null)
    const middle = feeders.length > 0 ? feeders.reduce((sum, at) => sum + at, 0) / feeders.length : total / 2
    let y = Math.max(8, middle - total / 2)
    for (const p of column) {
      placed.set(p.id, { part: p, x: 6 + c * pitch, y, w: wide, h: tall(p) })
      y += tall(p) + GAP
    }
    height = Math.max(height, y)
  })
  const lines = wires.flatMap((wire, index): Line[] => {
    const [a, b] = [placed.get(wire.from), placed.get(wire.to)]
    if (!a || !b) return []
    const port = (box: Placed, at: number[], left: boolean) => {
      if (!isSwitch(box.part) || at.length === 0) return { x: left ? box.x : box.x + box.w, y: box.y + box.h / 2 }
      return { x: box.x, y: box.y + 22 + 17 * (at[0] - 1) + 8 }
    }
    const forward = a.x <= b.x
    const start = port(a, wire.fromAt, !forward && wire.fromAt.length === 0)
    const end = port(b, wire.toAt, forward || wire.toAt.length > 0)
    // What one part feeds bends in one channel, as a trunk; other parts have channels of their own.
    const step = 6 * (parts.findIndex((p) => p.id === wire.from) % 5)
    let d: string
    if (end.x > start.x + 12) {
      const bend = Math.max(start.x + 8, end.x - 14 - step)
      d = `M${start.x} ${start.y}H${bend}V${end.y}H${end.x}`
    } else {
      const out = Math.max(a.x + a.w, b.x + b.w) + 8 + step
      const back = Math.min(start.x, end.x) - 8 - step
      const under = Math.max(a.y + a.h, b.y + b.h) + 6
      d =
        start.x >= a.x + a.w
          ? `M${start.x} ${start.y}H${out}V${under}H${back}V${end.y}H${end.x}`
          : `M${start.x} ${start.y}H${back}V${end.y}H${end.x}`
    }
    return [{ wire, index, d, mark: null }]
  })
  return { placed: [...placed.values()], lines, height: height + 6 }
}
