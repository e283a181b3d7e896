import { describe, expect, it } from 'vitest'
import type { Design, LedgerRow } from '../src/api/client'
import { changes, furthestOf, marked, topOf, wholeOf } from '../src/sheets/ledger'

const row = (change: Partial<LedgerRow> = {}): LedgerRow => ({
  part: {
    key: 'b1/x',
    bank: 'b1',
    group: 'units',
    tag: 'A–D',
    name: 'Unit',
    spec: '12.8 V',
    count: 8,
    unit: '',
    each: 310,
    price: 2480,
  },
  kind: 'part',
  top: 'proven',
  reached: { ordered: 8, here: 8, fitted: 6, proven: 0 },
  whole: 'here',
  toBuy: 0,
  paid: null,
  touched: null,
  gone: false,
  entry: null,
  ...change,
})

describe('marks', () => {
  const here = { stop: 'here' as const, count: 8, date: '2026-11-18', reason: null }

  it('keeps the stops before, so that a part of the quantity can be further', () => {
    expect(marked([here], 3, 6, '2026-11-26')).toEqual([
      here,
      { stop: 'fitted', count: 6, date: '2026-11-26', reason: null },
    ])
  })
  it('goes back: what came further is gone with it, and planned has no marks', () => {
    const both = marked([here], 3, 6, '2026-11-26')
    expect(marked(both, 2, 8, '2026-11-27').map((m) => m.stop)).toEqual(['here'])
    expect(marked(both, 1, 8, '2026-11-27').map((m) => m.stop)).toEqual(['ordered'])
    expect(marked(both, 0, 8, '2026-11-27')).toEqual([])
    expect(marked(both, 3, 0, '2026-11-27')).toEqual([here])
  })
  it('reads how far a row is, whole and in part', () => {
    expect([topOf(row()), wholeOf(row()), furthestOf(row())]).toEqual([4, 2, 3])
    expect(wholeOf(row({ whole: null }))).toBe(0)
    expect(topOf(row({ top: 'here' }))).toBe(2)
  })
})

describe('changes', () => {
  const wanted = { name: 'Unit', spec: '12.8 V', count: 8 }
  const design = (ledger: unknown[]) => ({ ledger }) as unknown as Design

  it('notes what the design wanted when the first of it is marked', () => {
    const marks = marked([], 1, 8, '2026-11-20')
    expect(changes(design([]), row(), { marks })).toEqual([
      { path: '/ledger/-', value: { key: 'b1/x', marks, paid: null, wanted } },
    ])
  })
  it('leaves that as it was when more is marked, and notes it anew when it is ordered anew', () => {
    const old = { name: 'Unit', spec: '12 V', count: 6 }
    const marks = marked([], 1, 6, '2026-11-20')
    const at = design([{ key: 'b1/x', marks, paid: 5, wanted: old }])
    const more = marked(marks, 2, 6, '2026-11-24')
    expect(changes(at, row({ entry: 0 }), { marks: more })).toEqual([
      { path: '/ledger/0', value: { key: 'b1/x', marks: more, paid: 5, wanted: old } },
    ])
    const none = design([{ key: 'b1/x', marks: [], paid: null, wanted: old }])
    expect((changes(none, row({ entry: 0 }), { marks })[0].value as { wanted: unknown }).wanted).toEqual(wanted)
  })
})
