import { describe, expect, it } from 'vitest'
import { dayOf, long, month, numberOf, short, since, weekday } from '../src/log/days'

describe('days of a log', () => {
  it('count on over months, years and leap days', () => {
    for (const day of ['1999-12-31', '2024-02-28', '2024-02-29', '2026-03-29', '2026-10-25', '2199-12-31'])
      expect(dayOf(numberOf(day))).toBe(day)
    expect(dayOf(numberOf('2024-02-28') + 1)).toBe('2024-02-29')
    expect(dayOf(numberOf('2026-02-28') + 1)).toBe('2026-03-01')
    expect(numberOf('2026-12-31') - numberOf('2026-01-01')).toBe(364)
  })

  it('stand on no zone: the day the clock was changed has 24 hours too', () => {
    expect(since('2026-10-25T12:00', '2026-10-25')).toBe(0.5)
    expect(since('2026-10-26T00:00', '2026-10-25')).toBe(1)
    expect(since('2026-03-29T06:00', '2026-03-28')).toBe(1.25)
    expect(since('2026-11-20', '2026-11-21')).toBe(-1)
  })

  it('are written as one says them', () => {
    expect(weekday('2026-11-21')).toBe('Sat')
    expect(short('2026-09-05')).toBe('5 Sep')
    expect(long('2026-11-27')).toBe('27 Nov 2026')
    expect(month('2024-04-12')).toBe('Apr 2024')
  })
})
