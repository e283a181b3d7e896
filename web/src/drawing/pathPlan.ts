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
}

const HEAD = 46

export function plan(e: BankEvaluation | null, width: number, height: number): PathPlan {
  const [left, bank, inverter] = [16, 190, 136]
  const loads = Math.max(300, Math.min(400, width * 0.29))
  const run = Math.max(280, width - 2 * left - bank - inverter - loads)
  const cables = Math.max(140, Math.round(run * 0.46))
  const columns = {
    bank: { x: left, width: bank },
    cables: { x: left + bank, width: cables },
    voltage: { x: left + bank + cables, width: run - cables },
    inverter: { x: left + bank + run, width: inverter },
    loads: { x: left + bank + run + inverter, width: loads },
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
  const middle = (top + bottom) / 2
  const half = (thick * conductors) / 2
  const post = left + bank - 6
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
  }
}
