import { describe, expect, it } from 'vitest'
import { Calendar, darkHours, stretches } from '../src/rehearse/days'

describe('the days of a rehearsal', () => {
  const year = new Calendar('2026-07-01')

  it('counts from its first day', () => {
    expect(year.weekday(0)).toBe('Wed')
    expect(year.date(0)).toBe('1 Jul')
    expect(year.date(150)).toBe('28 Nov')
    expect(year.year(184)).toBe(2027)
    expect(year.isFirstOfMonth(31)).toBe(true)
  })

  it('goes from hours to moments and back', () => {
    expect(year.iso(0)).toBe('2026-07-01T00:00')
    expect(year.iso(25.25)).toBe('2026-07-02T01:15')
    expect(year.hourOf('2026-07-02T01:15')).toBe(25.25)
    expect(year.moment(150 * 24 + 15.25)).toBe('28 Nov 15:15')
  })

  it('finds stretches', () => {
    expect(stretches([])).toEqual([])
    expect(stretches([true, true, false, true])).toEqual([
      [0, 2],
      [3, 4],
    ])
  })

  it('says dark in hours, however many', () => {
    expect(darkHours(0)).toBe('0 h')
    expect(darkHours(0.25)).toBe('15 min')
    expect(darkHours(15.3)).toBe('15.3 h')
    expect(darkHours(577.4)).toBe('577 h')
  })
})
