import { readNumber } from '../ui/written'

/** What a meter said, as people write it down: `21.4`, `21,4`, `0.0214 V`, `−26.6`. */
export interface MeterText {
  value: number
  /** What was understood, where it was not written as the step asks. */
  understood: string | null
}

/** How many of the step's unit one of the written unit is. */
const UNITS: Record<string, Record<string, number>> = {
  mV: { mv: 1, v: 1000 },
  V: { v: 1, mv: 0.001 },
  A: { a: 1, ma: 0.001 },
  '°C': { '°c': 1, c: 1, '°': 1 },
}

/** Null while it is no reading in this unit. */
export function readMeter(text: string, unit: string): MeterText | null {
  const written = readNumber(text)
  if (!written) return null
  const rest = written.rest.toLowerCase().replace(/\s*dc$/, '')
  const known = UNITS[unit] ?? {}
  if (rest === '') return { value: written.value, understood: null }
  if (rest === '°f' && unit === '°C') return said(((written.value - 32) * 5) / 9, unit)
  const factor = known[rest]
  if (factor === undefined) return null
  return factor === 1 ? { value: written.value, understood: null } : said(written.value * factor, unit)
}

function said(value: number, unit: string): MeterText {
  const rounded = Number(value.toPrecision(6))
  return { value: rounded, understood: `${rounded} ${unit}` }
}

/** A figure with its true minus and so many decimals. */
export const written = (value: number, decimals: number) => value.toFixed(decimals).replace('-', '−')
