import type { Design, LedgerEntry, LedgerRow, LedgerStop } from '../api/client'
import type { Change } from '../api/client'

/** The stops a part comes to, after planned. */
export const STOPS: LedgerStop[] = ['ordered', 'here', 'fitted', 'proven']
export const KEYS: Record<string, number> = { p: 0, o: 1, h: 2, f: 3, v: 4 }
export const WORDS = ['planned', ...STOPS]

type Mark = LedgerEntry['marks'][number]

/** The last stop a row comes to, as its place in WORDS. */
export const topOf = (row: LedgerRow) => STOPS.indexOf(row.top) + 1
/** The stop all of it has come to. */
export const wholeOf = (row: LedgerRow) => (row.whole === null ? 0 : STOPS.indexOf(row.whole) + 1)
/** The furthest stop any of it has come to. */
export const furthestOf = (row: LedgerRow) => {
  for (let n = STOPS.length; n > 0; n--) if (row.reached[STOPS[n - 1]] > 0) return n
  return 0
}

/** The marks once so many have come to a stop (0: planned) and none of them further. */
export function marked(
  marks: readonly Mark[],
  stop: number,
  count: number,
  date: string,
  reason: string | null = null,
): Mark[] {
  const before = marks.filter((m) => STOPS.indexOf(m.stop) + 1 < stop)
  if (stop === 0 || count <= 0) return stop === 0 ? [] : before
  return [...before, { stop: STOPS[stop - 1], count, date, reason }]
}

/** The changes that give a row other marks, or another entry altogether. */
export function changes(design: Design, row: LedgerRow, entry: Partial<LedgerEntry>): Change[] {
  const wanted = { name: row.part.name, spec: row.part.spec, count: row.part.count }
  const at = row.entry
  if (at === null) return [{ path: '/ledger/-', value: { key: row.part.key, marks: [], paid: null, wanted, ...entry } }]
  const before = design.ledger[at]
  // What was ordered is noted when the first of it is.
  const first = before.marks.length === 0 && (entry.marks?.length ?? 0) > 0
  return [{ path: `/ledger/${at}`, value: { ...before, ...(first || !before.wanted ? { wanted } : {}), ...entry } }]
}

export const today = () => {
  const now = new Date()
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`
}
