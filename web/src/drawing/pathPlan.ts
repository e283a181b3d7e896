import type { BankEvaluation, Station } from '../api/client'
import { diameterMm, step125 } from './geometry'

/** Where everything of the path lies: three scales that fit, and fixed station columns between which only the main run stretches. */
export interface PathPlan {
  columns: Record<Station, { x: number; width: number }>
  pxPerV: number
  pxPerMm: number
  pxPerM: number
  thick: number
  conductors: number
  gap: number
  yPlus: number
  yMinus: number
  post: number
  inverterX: number
  ruler: number
  bus: number
  top: number
  bottom: number
  /** The lines of the sources, the topmost first. */
  lanes: Lane[]
}

/** A source's line on paper: its row, where it goes up, its height over the bank, and how thick it is. */
export interface Lane {
  row: number
  riser: number
  y: number
  thick: number
}

/** As many sources as have room each. */
export const MOST_SOURCES = 4

const HEAD = 46

/** Rows of the sources: their pitch, and the first one's middle. */
export function sourceRows(count: number, top: number, bottom: number): { pitch: number; first: number } {
  const pitch = Math.min(34, (bottom + 12 - top) / Math.max(1, count))
  return { pitch, first: top + pitch / 2 }
}

export function plan(e: BankEvaluation | null, width: number, height: number): PathPlan {
  const left = 16
  const wide = width >= 1150
  const charging = wide ? 160 : 128
  const bank = wide ? 176 : 164
  const inverter = 132
  const leastRun = 220
  // The loads give way before the main run does.
  const rest = width - 2 * left - charging - bank - inverter - leastRun
  const loads = Math.max(236, Math.min(400, width * 0.3, rest))
  const run = Math.max(leastRun, width - 2 * left - charging - bank - inverter - loads)
  const cables = Math.max(140, Math.round(run * 0.49))
  const columns = {
    charging: { x: left, width: charging },
    bank: { x: left + charging, width: bank },
    cables: { x: left + charging + bank, width: cables },
    voltage: { x: left + charging + bank + cables, width: run - cables },
    inverter: { x: left + charging + bank + run, width: inverter },
    loads: { x: left + charging + bank + run + inverter, width: loads },
  }
  const [top, bottom] = [HEAD + 4, height - 20]
  const room = bottom - top
  const mostThick = room > 80 ? 19 : 8
  const conductors = e?.mainRun?.cable.conductors ?? 1
  const diameter = diameterMm(e?.mainRun?.cable.areaMm2 ?? 16)
  const pxPerMm = step125(mostThick / (diameter * conductors))
  const thick = e?.mainRun?.cable.areaMm2 ? diameter * pxPerMm : 2
  const volts = e?.voltage?.nominalV ?? 12.8
  const pxPerV = step125((room - 2 * mostThick) / volts)
  const gap = volts * pxPerV
  const half = (thick * conductors) / 2
  const sources = e?.charging?.sources ?? []
  const shown = sources.length > MOST_SOURCES ? MOST_SOURCES : sources.length
  const thicks = Array.from({ length: shown }, (_, i) => {
    const circuit = e!.circuits.find((c) => c.id === `source-${sources[i].id}`)
    return Math.max(2, Math.min(8, diameterMm(circuit?.run.cable.areaMm2 ?? 1) * pxPerMm))
  })
  const lanesHeight = thicks.reduce((sum, t) => sum + t + 2, 0)
  // The lines of the sources pass over the bank: where there is room the poles give way downwards.
  const spare = Math.max(0, bottom - (top + bottom) / 2 - gap / 2 - 2 * half)
  const wanted = Math.max(0, HEAD - 1 + lanesHeight + 2 - ((top + bottom) / 2 - gap / 2 - 2 * half))
  const middle = (top + bottom) / 2 + Math.min(spare, wanted)
  const post = left + charging + bank - 6
  const { pitch, first } = sourceRows(Math.min(sources.length, MOST_SOURCES + 1), HEAD, bottom)
  const lanesTop = Math.min(HEAD - 1, middle - gap / 2 - 2 * half - 2 - lanesHeight)
  let laneY = lanesTop
  let riser = left + charging - (wide ? 42 : 34)
  const lanes = thicks.map((t, i) => {
    const lane = { row: first + i * pitch, riser: riser + t / 2, y: laneY + t / 2, thick: t }
    laneY += t + 2
    riser += t + 3
    return lane
  })
  const inverterX = columns.inverter.x + 8
  const bus = columns.voltage.x - 30
  const length = e?.mainRun?.laid.lengthM ?? 2
  return {
    columns,
    pxPerV,
    pxPerMm,
    // Without an inverter the run ends at the bus.
    pxPerM: ((e?.inverter ? inverterX : bus) - post) / length,
    bus,
    thick,
    conductors,
    gap,
    yPlus: middle - gap / 2 - half,
    yMinus: middle + gap / 2 + half,
    post,
    inverterX,
    ruler: step125(length / 3),
    top,
    bottom,
    lanes,
  }
}
