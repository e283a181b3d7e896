import { describe, expect, it } from 'vitest'
import type { Bank, Design, Load, Run, Source } from '../src/api/client'
import { ahOfUnits, copyOf, loadTo, moved, newBank, newJoin, sourceTo, without } from '../src/banks/banks'
import { withChanges } from '../src/ui/pointer'

const empty = { banks: [], joins: [] } as unknown as Design
const load = (id: string, kind = 'dc') => ({ id, name: id, kind, tap: 1 }) as unknown as Load
const source = (id: string) => ({ id, name: id, kind: 'mains' }) as unknown as Source
const run = (id: string, sharedWith: string | null = null) => ({ id, sharedWith }) as unknown as Run

function bank(id: string, more: Partial<Bank> = {}): Bank {
  return { ...newBank(empty, null), id, name: id, ...more }
}
const loads = (...list: Load[]): Bank['demand'] => ({ by: 'loads', loads: list, figure: null, states: null })

describe('banks of a design', () => {
  it('are made under a name that no other has', () => {
    const design = { banks: [bank('a', { name: '36 V bank' })], joins: [] } as unknown as Design
    expect(newBank(design, 36)).toMatchObject({ name: '36 V bank 2', systemV: 36, unit: null })
    expect(newBank(design, null).name).toBe('Another bank')
    expect(newBank(design, 12).id).not.toBe(newBank(design, 12).id)
  })

  it('are copied with all but what joins them', () => {
    const first = bank('a', { runs: [run('main'), run('join-j1')], demand: loads(load('l1')) })
    const copy = copyOf({ banks: [first], joins: [] } as unknown as Design, 0)
    expect(copy).toMatchObject({ name: 'a, copy', demand: first.demand, runs: [run('main')] })
    expect(copy.id).not.toBe('a')
    expect(copy.demand.loads[0]).not.toBe(first.demand.loads[0])
  })

  it('go with their joins and the runs of those', () => {
    const joins = [
      { ...newJoin('a', 'b'), id: 'j1' },
      { ...newJoin('b', 'c'), id: 'j2' },
      { ...newJoin('a', 'c'), id: 'j3' },
    ]
    const design = {
      banks: [bank('a', { runs: [run('join-j1'), run('join-j3')] }), bank('b'), bank('c', { runs: [run('join-j2')] })],
      joins,
    } as unknown as Design
    const after = withChanges(design, without(design, 1))
    expect(after.banks.map((b) => b.id)).toEqual(['a', 'c'])
    expect(after.joins.map((j) => j.id)).toEqual(['j3'])
    expect(after.banks.flatMap((b) => b.runs.map((r) => r.id))).toEqual(['join-j3'])
  })

  it('change places', () => {
    const design = { banks: ['a', 'b', 'c'].map((id) => bank(id)), joins: [] } as unknown as Design
    expect(withChanges(design, moved(design, 2, -1)).banks.map((b) => b.id)).toEqual(['a', 'c', 'b'])
    expect(withChanges(design, moved(design, 0, 1)).banks.map((b) => b.id)).toEqual(['b', 'a', 'c'])
  })
})

describe('what hangs on a bank', () => {
  const design = {
    banks: [
      bank('a', {
        demand: loads(load('l1'), load('l2', 'ac')),
        runs: [run('load-l1'), run('load-l2', 'load-l1')],
        sources: [source('s1')],
        inverters: newBank(empty, null).inverters,
      }),
      bank('b', { demand: loads(load('l1')), inverters: [], sources: [source('s1')] }),
    ],
    joins: [],
  } as unknown as Design

  it('a load goes with its cable, under an id that is free there, and takes no tap along', () => {
    const after = withChanges(design, loadTo(design, 0, 0, 1))
    expect(after.banks[0].demand.loads.map((l) => l.id)).toEqual(['l2'])
    // What shared its cable has its own again.
    expect(after.banks[0].runs).toEqual([run('load-l2')])
    const [old, come] = after.banks[1].demand.loads
    expect(old.id).toBe('l1')
    expect(come).toMatchObject({ name: 'l1', tap: null })
    expect(come.id).not.toBe('l1')
    expect(after.banks[1].runs.map((r) => r.id)).toEqual([`load-${come.id}`])
    expect(after.banks[1].inverters).toEqual([])
  })

  it('an AC load brings an inverter where there is none', () => {
    const after = withChanges(design, loadTo(design, 0, 1, 1))
    expect(after.banks[1].demand.loads.map((l) => l.id)).toEqual(['l1', 'l2'])
    expect(after.banks[1].inverters).toHaveLength(1)
  })

  it('a source goes likewise', () => {
    const after = withChanges(design, sourceTo(design, 0, 0, 1))
    expect(after.banks[0].sources).toEqual([])
    expect(after.banks[1].sources.map((s) => s.name)).toEqual(['s1', 's1'])
    expect(new Set(after.banks[1].sources.map((s) => s.id)).size).toBe(2)
  })
})

it('units are drawn as wide as what they hold', () => {
  const position = { string: 2, unit: 1, item: { ah: 50 }, health: 0.8 } as unknown as Bank['positions'][number]
  expect(ahOfUnits(bank('a', { positions: [position] }), 1, 2, 100)).toEqual([[100], [40]])
})
