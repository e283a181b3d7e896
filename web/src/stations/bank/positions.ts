import type { Bank } from '../../api/client'

export type Position = Bank['positions'][number]

/** A place in the bank, string and unit from 1. */
export interface At {
  string: number
  unit: number
}

/** What can be said of a unit where it stands. */
export type Said = Omit<Position, 'string' | 'unit'>

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
