import { describe, expect, it } from 'vitest'
import { lastFields, numbersOf } from '../src/stations/charging/list'

describe('lists of hours and watts', () => {
  it('keep decimal commas with their number', () => {
    expect(numbersOf('1,1 1,8 2,9')).toEqual([1.1, 1.8, 2.9])
    expect(numbersOf('1.1, 1.8, 2.9')).toEqual([1.1, 1.8, 2.9])
    expect(numbersOf('0;120;80\n5')).toEqual([0, 120, 80, 5])
  })

  it('guess at nothing', () => {
    expect(numbersOf('1,200 3')[0]).toBeNaN()
    expect(numbersOf('1 x')[1]).toBeNaN()
  })

  it('come out of either kind of CSV', () => {
    expect(numbersOf(lastFields('month,hours\njan,1.2\nfeb,2'))).toEqual([1.2, 2])
    expect(numbersOf(lastFields('Monat;Stunden\r\nJan;1,2\r\nFeb;2,25'))).toEqual([1.2, 2.25])
  })
})
