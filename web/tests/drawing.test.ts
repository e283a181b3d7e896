import { describe, expect, it } from 'vitest'
import { said } from '../src/app/differences'
import { coreOf, cut, diameterMm, step125, stepUp125, ticks } from '../src/drawing/geometry'

describe('lengths on paper', () => {
  it('a solid round of 50 mm² is 7.98 mm thick', () => expect(diameterMm(50)).toBeCloseTo(7.979, 3))

  it('steps of an axis are 1, 2 or 5 times a power of ten', () => {
    for (let value = 0.013; value < 90_000; value *= 1.37) {
      const [down, up] = [step125(value), stepUp125(value)]
      expect(down).toBeLessThanOrEqual(value)
      expect(up).toBeGreaterThanOrEqual(value * (1 - 1e-9))
      for (const step of [down, up])
        expect([1, 2, 5]).toContain(Math.round(step / 10 ** Math.floor(Math.log10(step) + 1e-9)))
      expect(up / down).toBeLessThan(2.6)
    }
    expect(step125(0)).toBe(1)
  })

  it('an axis reaches what it must', () => {
    expect(ticks(37, 4)).toEqual([0, 10, 20, 30])
    expect(ticks(40, 4)).toEqual([0, 10, 20, 30, 40])
  })

  it('half of a conductor in use is a core of half its area', () => {
    expect(coreOf(10, 0.5) ** 2 / 100).toBeCloseTo(0.5, 9)
    expect(coreOf(10, 3)).toBe(10)
  })

  it('a text that does not fit ends with a sign', () =>
    expect([cut('Ceiling lights', 8), cut('Lamp', 8)]).toEqual(['Ceiling…', 'Lamp']))
})

describe('a change in words', () => {
  it.each([
    ['/banks/0/runs/0/lengthM', 3, 'runs, length: 3'],
    ['/banks/0/parallel', null, 'parallel: none, or as advised'],
    ['/banks/0/unit', { key: 'u', name: 'LFP 100' }, 'unit: LFP 100'],
    ['', { name: 'Van' }, 'the design: Van'],
  ])('%s', (path, value, text) => expect(said({ path, value })).toBe(text))
})
