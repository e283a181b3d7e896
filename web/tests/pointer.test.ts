import { describe, expect, it } from 'vitest'
import { at, changesBetween, keptAs, withChanges } from '../src/ui/pointer'

/** The same numbers every time. */
function seeded(seed: number) {
  return () => {
    seed = (seed * 1664525 + 1013904223) % 4294967296
    return seed / 4294967296
  }
}

type Json = null | number | string | Json[] | { [key: string]: Json }

function some(random: () => number, depth = 0): Json {
  const kind = Math.floor(random() * (depth > 3 ? 3 : 6))
  if (kind === 0) return null
  if (kind === 1) return Math.floor(random() * 5)
  if (kind === 2) return ['', 'a', 'lfp'][Math.floor(random() * 3)]
  const count = Math.floor(random() * 4)
  if (kind === 3) return Array.from({ length: count }, () => some(random, depth + 1))
  return Object.fromEntries(Array.from({ length: count }, (_, i) => [`f${i}`, some(random, depth + 1)]))
}

describe('changes of a document', () => {
  const bus = { name: 'bus', banks: [{ id: 'a', loads: [{ watts: 5 }, { watts: 9 }], own: {} as object }] }

  it('puts a value where the pointer says, and shares the rest', () => {
    const then = withChanges(bus, [{ path: '/banks/0/loads/1/watts', value: 7 }])
    expect(at(then, '/banks/0/loads/1/watts')).toBe(7)
    expect(bus.banks[0].loads[1].watts).toBe(9)
    expect(then.banks[0].loads[0]).toBe(bus.banks[0].loads[0])
  })

  it('appends, replaces the whole, and finds nothing where nothing stands', () => {
    expect(withChanges(bus, [{ path: '/banks/0/loads/-', value: { watts: 1 } }]).banks[0].loads).toHaveLength(3)
    expect(withChanges<unknown>(bus, [{ path: '', value: { other: 1 } }])).toEqual({ other: 1 })
    expect(at(bus, '/banks/3/loads')).toBeUndefined()
  })

  it('says what differs as deep as it can', () => {
    const then = withChanges(bus, [
      { path: '/banks/0/loads/1/watts', value: 7 },
      { path: '/name', value: 'van' },
    ])
    expect(changesBetween(bus, then)).toEqual([
      { path: '/name', value: 'van' },
      { path: '/banks/0/loads/1/watts', value: 7 },
    ])
  })

  it('says an added entry as one, and a list that lost one as a whole', () => {
    const more = withChanges(bus, [{ path: '/banks/0/loads/-', value: { watts: 1 } }])
    expect(changesBetween(bus, more)).toEqual([{ path: '/banks/0/loads/-', value: { watts: 1 } }])
    expect(changesBetween(more, bus)).toEqual([{ path: '/banks/0/loads', value: bus.banks[0].loads }])
  })

  it('makes the one of the other, whatever both are', () => {
    const random = seeded(3)
    for (let n = 0; n < 3000; n++) {
      const [before, after] = [some(random), some(random)]
      const made = withChanges<unknown>(before, changesBetween(before, after))
      expect(made, `${JSON.stringify(before)} to ${JSON.stringify(after)}`).toEqual(after)
      expect(changesBetween(before, JSON.parse(JSON.stringify(before)))).toEqual([])
    }
  })
})

describe('what is kept', () => {
  it('is what was sent, with what was not said filled in', () => {
    const sent = { name: 'bus', entries: [{ step: 'a', value: 3, words: undefined }] }
    expect(
      keptAs(sent, { name: 'bus', entries: [{ step: 'a', value: 3, words: null, amps: null, what: 'read' }] }),
    ).toBe(true)
    expect(keptAs({ a: null }, {})).toBe(true)
    expect(keptAs({ a: [] }, { a: [] })).toBe(true)
  })

  it('is not what somebody else has changed', () => {
    const sent = { name: 'bus', entries: [{ step: 'a', value: 3 }] }
    expect(keptAs(sent, { name: 'van', entries: [{ step: 'a', value: 3 }] })).toBe(false)
    expect(keptAs(sent, { name: 'bus', entries: [{ step: 'a', value: 4 }] })).toBe(false)
    expect(keptAs(sent, { name: 'bus', entries: [{ step: 'a', value: 3 }, { step: 'b' }] })).toBe(false)
    expect(keptAs(sent, { name: 'bus', entries: null })).toBe(false)
    expect(keptAs({ a: 0 }, { a: null })).toBe(false)
    expect(keptAs({ a: null }, { a: 2 })).toBe(false)
    expect(keptAs({ a: [1] }, { a: { 0: 1 } })).toBe(false)
  })
})
