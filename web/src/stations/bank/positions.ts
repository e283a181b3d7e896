import type { Bank } from '../../api/client'
import type { Kind } from '../../ui/quantity'

export type Position = Bank['positions'][number]

/** A place in the bank, string and unit from 1. */
export interface At {
  string: number
  unit: number
}

/** What can be said of a unit where it stands. */
export type Said = Omit<Position, 'string' | 'unit'>

/** What is typed of a unit, and what stands where nothing is. */
export const unitFields: { key: keyof Said & string; label: string; kind: Kind; empty: string; width: string }[] = [
  { key: 'health', label: 'capacity left', kind: 'share', empty: '100 %', width: '66px' },
  { key: 'soc', label: 'charge', kind: 'share', empty: 'full', width: '62px' },
  { key: 'jointMilliohm', label: 'bad joint, mΩ', kind: 'number', empty: 'sound', width: '72px' },
  { key: 'ageYears', label: 'age, years', kind: 'number', empty: 'new', width: '62px' },
  { key: 'cyclesUsed', label: 'cycles used', kind: 'number', empty: 'none', width: '66px' },
  { key: 'price', label: 'price', kind: 'number', empty: 'its kind’s', width: '72px' },
]

export const blank = (at: At): Position => ({
  string: at.string,
  unit: at.unit,
  item: null,
  ageYears: null,
  cyclesUsed: null,
  price: null,
  health: null,
  soc: null,
  jointMilliohm: null,
  stand: null,
})

export const indexOf = (positions: Position[], at: At) =>
  positions.findIndex((p) => p.string === at.string && p.unit === at.unit)

const isBlank = (p: Position) =>
  Object.entries(p).every(([key, value]) => key === 'string' || key === 'unit' || value === null)

/** How far what is said of a unit reaches: it alone, its string, all strings. */
export type Reach = 'unit' | 'string' | 'all'

export function reached(at: At, reach: Reach, series: number, parallel: number): At[] {
  const strings = reach === 'all' ? Array.from({ length: parallel }, (_, s) => s + 1) : [at.string]
  const units = reach === 'unit' ? [at.unit] : Array.from({ length: series }, (_, u) => u + 1)
  return strings.flatMap((string) => units.map((unit) => ({ string, unit })))
}

/** The positions with something said of some places; a place of which nothing is said any more is left out. */
export function saying(positions: Position[], places: At[], said: Partial<Said>): Position[] {
  const next = [...positions]
  for (const at of places) {
    const i = indexOf(next, at)
    if (i >= 0) next[i] = { ...next[i], ...said }
    else next.push({ ...blank(at), ...said })
  }
  return next.filter((p) => !isBlank(p))
}
