import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { HouseRule } from '../src/api/client'

const edit = vi.fn()
const session = {
  design: { houseRules: { set: 'typical', own: {} as Record<string, unknown> } },
  units: 'metric',
  edit,
}
vi.mock('../src/app/session.svelte', () => ({ session }))
const { current, isOther, isOwn, pretty, same, takeRule, takeSchool, typeRule } = await import('../src/ui/houseRules')

function rule(change: Partial<HouseRule>): HouseRule {
  return {
    id: 'c-rate-lithium',
    group: 'bank',
    label: 'Continuous C-rate, lithium',
    type: 'number',
    unit: 'per hour',
    cautious: '0.3',
    typical: '0.5',
    lean: '1.0',
    sentence: '',
    careful: '',
    spare: '',
    least: 0,
    greatest: 1000,
    words: [],
    ...change,
  }
}

beforeEach(() => {
  edit.mockClear()
  session.design.houseRules = { set: 'typical', own: {} }
  session.units = 'metric'
})

describe('a value of a house rule', () => {
  it.each([
    ['per hour', '0.34', '0.34 C'],
    ['fraction', '0.9', '90 %'],
    ['fraction', '0.035', '3.5 %'],
    ['days', '1', '1 day'],
    ['days', '2.5', '2.5 days'],
    ['strings', '4', '4 strings'],
    ['A', '125', '125 A'],
    ['', 'one-at-a-time', 'one at a time'],
    ['mm²', 'none', 'none'],
  ])('%s %s is %s', (unit, value, text) => {
    expect(pretty(rule({ unit }), value)).toBe(text)
  })

  it('is the same however its number is written', () => {
    expect(same('1.0', '1')).toBe(true)
    expect(same('0.30', '0.3')).toBe(true)
    expect(same('none', 'none')).toBe(true)
    expect(same('none', '0')).toBe(false)
    expect(same('', '0')).toBe(false)
  })
})

describe('what is in force', () => {
  it('is the set’s, until the design has its own', () => {
    expect(current(rule({}))).toBe('0.5')
    expect(isOwn(rule({}))).toBe(false)
    session.design.houseRules.set = 'lean'
    expect(current(rule({}))).toBe('1.0')
    session.design.houseRules.own = { 'c-rate-lithium': 0.34 }
    expect(current(rule({}))).toBe('0.34')
    expect(isOwn(rule({}))).toBe(true)
  })

  it('leaves the other series of sizes out', () => {
    expect(isOther(rule({ id: 'cable-practice-awg' }))).toBe(true)
    session.units = 'imperial'
    expect(isOther(rule({ id: 'cable-practice-awg' }))).toBe(false)
    expect(isOther(rule({ id: 'cable-practice-metric' }))).toBe(true)
  })
})

describe('taking a value', () => {
  const own = () => edit.mock.calls.at(-1)![0].value as Record<string, unknown>

  it('keeps a number as a number and a word as a word, in one step', () => {
    takeRule(rule({}), '0.3')
    expect(own()).toEqual({ 'c-rate-lithium': 0.3 })
    expect(edit.mock.calls.at(-1)![1]).toBe(true)
    takeRule(
      rule({ id: 'take-off', type: 'word', cautious: 'bus-bars', typical: 'diagonal', lean: 'same-end' }),
      'bus-bars',
    )
    expect(own()).toEqual({ 'take-off': 'bus-bars' })
  })

  it('is none of its own where the set says the same', () => {
    session.design.houseRules.own = { 'c-rate-lithium': 0.3, 'most-strings': 6 }
    takeRule(rule({}), '0.50')
    expect(own()).toEqual({ 'most-strings': 6 })
  })

  it('gives back one and leaves the others', () => {
    session.design.houseRules.own = { 'c-rate-lithium': 0.34, 'most-strings': 6 }
    takeRule(rule({}), null)
    expect(own()).toEqual({ 'most-strings': 6 })
  })

  it('is not kept while it is typed', () => {
    typeRule(rule({}), '0.34')
    expect(own()).toEqual({ 'c-rate-lithium': 0.34 })
    expect(edit.mock.calls.at(-1)![1]).toBeUndefined()
  })

  it('takes a whole set without own values', () => {
    session.design.houseRules.own = { 'c-rate-lithium': 0.34 }
    takeSchool('lean')
    expect(edit).toHaveBeenCalledWith({ path: '/houseRules', value: { set: 'lean', own: {} } }, true)
  })
})
