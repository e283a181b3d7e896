import { describe, expect, it } from 'vitest'
import { readPhrase } from '../src/stations/loads/phrase'
import { added, lengthOf, moved, resized, stretches } from '../src/ui/dayWindows'
import { powerOffers, slip } from '../src/ui/slips'

const about = { hours: 4, powerFactor: null, inAmps: false }

describe('a slip', () => {
  it('is answered by what was probably meant, with the other reading to choose', () => {
    const va = slip('100 VA', about)
    expect(va).toMatchObject({
      reading: { watts: 80, va: 100, powerFactor: 0.8 },
      others: [{ reading: { watts: 100 } }],
    })
    expect(slip('20 Ah', about)).toMatchObject({ reading: { amps: 5 }, others: [{ reading: { amps: 20 } }] })
    expect(slip('400 Wh', about)).toMatchObject({ reading: { watts: 100 } })
    expect(slip('5 amps per hour', about)).toMatchObject({
      reading: { amps: 5 },
      others: [{ reading: { amps: 1.25 } }],
    })
    expect(slip('100 w/h', about)).toMatchObject({ reading: { watts: 100 } })
    expect(slip('60 kW', about)).toMatchObject({ reading: { watts: 60_000 }, others: [{ reading: { watts: 60 } }] })
    expect(slip('1.8 W', about)).toMatchObject({ others: [{ reading: { watts: 1800 } }] })
  })

  it('is none where the text is plain, and asks for hours where a day’s worth needs them', () => {
    expect(slip('60 W', about)).toBeNull()
    expect(slip('fridge', about)).toBeNull()
    expect(slip('20 Ah', { ...about, hours: 0 })).toHaveProperty('reason')
  })

  it('of a start offers a thousandth or a thousandfold', () => {
    expect(powerOffers('60 kW')).toEqual([{ text: '60 W', value: 60 }])
    expect(powerOffers('1.8')).toEqual([{ text: '1.8 kW', value: 1800 }])
    expect(powerOffers('900')).toEqual([])
  })
})

describe('the demand in a phrase', () => {
  it.each([
    ['500 W for 4 hours', { watts: 500, hours: 4, days: null }],
    ['55 A for 9 hours', { amps: 55, hours: 9, direct: true }],
    ['0.9 kWh a night', { energyWh: 900, hours: 14 }],
    ['20 W for 3 days', { watts: 20, hours: 24, days: 3 }],
    ['100 Ah a day', { amps: 100 / 24, direct: true }],
    ['60 W for half an hour', { watts: 60, hours: 0.5 }],
  ])('%s', (text, wanted) => {
    const read = readPhrase(text) as unknown as Record<string, number>
    for (const [key, value] of Object.entries(wanted))
      if (typeof value === 'number') expect(read[key]).toBeCloseTo(value, 6)
      else expect(read[key]).toBe(value)
  })

  it.each(['a lot', '3 hp all day', '5 W for 0 hours', '5 W for 90 days', '5 W for ever'])('%s is refused', (text) => {
    expect(readPhrase(text)).toHaveProperty('reason')
  })
})

describe('windows of a load', () => {
  const overlap = (windows: number[][]) => {
    const all = windows.flatMap(stretches).sort((a, b) => a[0] - b[0])
    return all.some((s, i) => i > 0 && s[0] < all[i - 1][1] - 1e-6)
  }

  it('keep their length and never overlap, wherever they are dragged', () => {
    let seed = 7
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    let stopped = 0
    for (let n = 0; n < 2000; n++) {
      const windows = [
        [1, 2],
        [8, 9.5],
        [22, 23],
      ]
      const index = Math.floor(random() * 3)
      const then = moved(windows, index, random() * 24)
      if (!then) {
        stopped++
        continue
      }
      expect(lengthOf(then[index])).toBeCloseTo(lengthOf(windows[index]), 6)
      expect(overlap(then), JSON.stringify(then)).toBe(false)
      expect(then.every(([from, to]) => from >= 0 && from < 24 && to > 0 && to <= 24)).toBe(true)
    }
    expect(stopped).toBe(0)
  })

  it('may be resized past midnight, but not through themselves or into another', () => {
    expect(resized([[22, 23]], 0, 'end', 2)).toEqual([[22, 2]])
    expect(resized([[10, 11]], 0, 'end', 9.9)).toBeNull()
    expect(
      resized(
        [
          [10, 11],
          [12, 13],
        ],
        0,
        'end',
        12.5,
      ),
    ).toBeNull()
    expect(resized([[10, 11]], 0, 'start', 10.999)).toBeNull()
  })

  it('are drawn where there is room', () => {
    expect(added([[10, 11]], 14, 13)).toEqual([
      [10, 11],
      [13, 14],
    ])
    expect(added([[10, 11]], 10.5, 12)).toBeNull()
    expect(added([], 5, 5.001)).toBeNull()
    expect(stretches([22, 6])).toEqual([
      [22, 24],
      [0, 6],
    ])
  })
})
