import { describe, expect, it } from 'vitest'
import { clock, fieldText, parse, parseTimes, say, sizeName, stringName, timesText } from '../src/ui/quantity'
import type { Kind, UnitSystem } from '../src/ui/quantity'
import said from '../../docs/format/figures-said.json'

describe('a figure that is shown', () => {
  it.each(said as [number, string, UnitSystem, string][])('%s %s, %s, is %s', (value, unit, system, text) => {
    expect(say(value, unit, system)).toBe(text)
  })
})

describe('a quantity that is read', () => {
  const good: [string, Kind, number][] = [
    ['1.5k', 'power', 1500],
    ['3 kW', 'power', 3000],
    ['12', 'current', 12],
    ['250 mA', 'current', 0.25],
    ['40 ft', 'length', 12.192],
    ['2 m', 'length', 2],
    ['12 min', 'hours', 0.2],
    ['25 %', 'share', 0.25],
    ['1 800', 'power', 1800],
    ['2,5', 'power', 2.5],
    ['12,8 V', 'voltage', 12.8],
    ['½ h', 'hours', 0.5],
    ["40'", 'length', 12.192],
    ['12\' 6"', 'length', 3.81],
    ['88', 'share', 0.88],
    ['6V', 'voltage', 6],
    ['1,500', 'count', 1500],
    ['1e3', 'power', 1000],
    ['−5', 'number', -5],
    ['500 ms', 'seconds', 0.5],
    ['.5', 'power', 0.5],
  ]
  it.each(good)('%s as %s', (text, kind, value) => {
    const parsed = parse(text, kind)
    expect('value' in parsed && parsed.value).toBeCloseTo(value, 9)
  })

  const bad: [string, Kind, RegExp][] = [
    ['5 Ah', 'current', /that is charge/],
    ['5 Wh', 'power', /that is energy/],
    ['5 VA', 'power', /apparent power/],
    ['5 kg', 'power', /does not fit/],
    ['lamp', 'power', /is not a number/],
    ['2/0', 'number', /conductor’s size/],
    ['1,800', 'power', /two ways/],
    ['0.5', 'share', /two ways/],
    ['1,5O0', 'power', /does not fit|is not a number/],
    ['1e999', 'power', /out of all measure/],
    ['9'.repeat(61), 'power', /too long/],
  ]
  it.each(bad)('%s as %s is refused with a reason', (text, kind, reason) => {
    const parsed = parse(text, kind)
    expect('reason' in parsed && parsed.reason).toMatch(reason)
  })

  it('asks which of two readings is meant, and only where the field has room for both', () => {
    expect(parse('1,800', 'power')).toMatchObject({ choices: [1.8, 1800] })
    expect(parse('12,800', 'voltage', 'metric', (v) => v <= 1000)).toEqual({ value: 12.8, said: true })
    expect(parse('1,800', 'power', 'metric', (v) => v >= 10)).toEqual({ value: 1800, said: true })
    expect(parse('0.5', 'share')).toMatchObject({ choices: [0.5, 0.005] })
    expect(parse('0.5', 'share', 'metric', (v) => v >= 0.05)).toEqual({ value: 0.5, said: true })
  })

  it('takes a point for the decimal one, and offers the other reading', () => {
    expect(parse('1.800', 'power')).toEqual({ value: 1.8, said: true, other: 1800 })
  })

  it('takes feet for granted where lengths are read in feet', () => {
    expect(parse('10', 'length', 'imperial')).toEqual({ value: 3.048, said: false })
    expect(fieldText(3.048, 'length', 'imperial')).toBe('10 ft')
  })

  it('is not held up by a long text', () => {
    expect(parse('1' + ' '.repeat(4000) + 'x', 'power')).toHaveProperty('reason')
  })

  it('comes back as it was written', () => {
    for (const [kind, value] of [
      ['power', 1234.5],
      ['share', 0.085],
      ['seconds', 0.25],
      ['hours', 7.5],
      ['count', 12],
    ] as [Kind, number][]) {
      const parsed = parse(fieldText(value, kind, 'metric'), kind)
      expect('value' in parsed && parsed.value).toBeCloseTo(value, 9)
    }
  })
})

describe('a quantity that is shown', () => {
  const shown: [number, string, string][] = [
    [999, 'Wh', '999 Wh'],
    [9216, 'Wh', '9.22 kWh'],
    [1235, 'A', '1.2 kA'],
    [9.876, 'A', '9.88 A'],
    [50, 'h', '2.1 days'],
    [0.5, 'h', '30 min'],
    [0.004, 's', '4 ms'],
    [90, 's', '90 s'],
    [600, 's', '10 min'],
    [0.255, 'fraction', '25.5 %'],
    [0.0004, 'ohm', '0.400 mΩ'],
    [-5, 'W', '−5 W'],
  ]
  it.each(shown)('%d %s as %s', (value, unit, text) => expect(say(value, unit)).toBe(text))

  it('in feet and pounds where they are wanted', () => {
    expect(say(2.5, 'm', 'imperial')).toBe('8.2 ft')
    expect(say(10, 'kg', 'imperial')).toBe('22 lb')
  })
})

describe('times of day', () => {
  it('are read as windows or as hours', () => {
    expect(parseTimes('10:00-10:10, 15-16')).toEqual({
      windows: [
        [10, 10 + 1 / 6],
        [15, 16],
      ],
    })
    expect(parseTimes('22:00 to 6:30')).toEqual({ windows: [[22, 6.5]] })
    expect(parseTimes('4 h')).toEqual({ hours: 4 })
    expect(parseTimes('12 min')).toEqual({ hours: 0.2 })
  })

  it.each(['25:00-26:00', '10:00-10:00', '10:75-11', 'noon', '30 h', '10:00-'])('%s is refused', (text) => {
    expect(parseTimes(text)).toHaveProperty('reason')
  })

  it('are written as they are read', () => {
    const windows = [
      [22.5, 6.25],
      [7, 7.1],
    ]
    const text = timesText({ windows, hours: null })
    expect(text).toBe('22:30–6:15, 7:00–7:06')
    expect(parseTimes(text)).toEqual({
      windows: [
        [22.5, 6.25],
        [7, 7 + 6 / 60],
      ],
    })
    expect(clock(23.999)).toBe('24:00')
  })
})

it('strings are lettered from A, on past Z', () => {
  expect([1, 26, 27, 52, 53].map(stringName)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA'])
  expect(sizeName('50 mm²', 2)).toBe('2 × 50 mm²')
})
