import { describe, expect, it } from 'vitest'
import { readMeter, written } from '../src/bringup/meterText'

describe('what a meter said, as people write it down', () => {
  it.each([
    ['21.4', 'mV', 21.4, null],
    ['21,4', 'mV', 21.4, null],
    ['21.4 mV', 'mV', 21.4, null],
    ['0.0214 V', 'mV', 21.4, '21.4 mV'],
    ['0,0214V', 'mV', 21.4, '21.4 mV'],
    ['-0,4 mV', 'mV', -0.4, null],
    ['13,302', 'V', 13.302, null],
    ['13.3 V DC', 'V', 13.3, null],
    ['26400 mV', 'V', 26.4, '26.4 V'],
    ['−26.4', 'V', -26.4, null],
    ['84.8 A', 'A', 84.8, null],
    ['850 mA', 'A', 0.85, '0.85 A'],
    ['140 °F', '°C', 60, '60 °C'],
    ['60°C', '°C', 60, null],
  ])('%s at a step in %s', (text, unit, value, understood) => {
    const read = readMeter(text, unit)!
    expect(read.value).toBeCloseTo(value, 9)
    expect(read.understood).toBe(understood)
  })
  it.each([
    ['about thirteen', 'V'],
    ['', 'V'],
    ['13.3 A', 'V'],
    ['0.4 V', 'A'],
    ['21.4 mΩ', 'mV'],
  ])('%s is no reading in %s', (text, unit) => expect(readMeter(text, unit)).toBeNull())
  it('writes a true minus and the decimals of the step', () => expect(written(-3.7, 2)).toBe('−3.70'))
})
