import type { HouseRule } from '../api/client'
import { session } from '../app/session.svelte'
import { plainNumber } from './quantity'

/** House rules as they are read, written and taken; which figures they move is worked out elsewhere. */

export type School = 'cautious' | 'typical' | 'lean'
export const schools: School[] = ['cautious', 'typical', 'lean']

export const same = (a: string, b: string) => a === b || (a !== '' && Number(a) === Number(b))

/** A value of the rule as one says it. */
export function pretty(rule: HouseRule, value: string): string {
  const number = Number(value)
  if (!Number.isFinite(number)) return value.replace(/-/g, ' ')
  if (rule.unit === 'fraction') return `${plainNumber(Number((number * 100).toPrecision(12)))} %`
  const unit = rule.unit === 'per hour' ? 'C' : number === 1 ? rule.unit.replace(/s$/, '') : rule.unit
  return `${plainNumber(number)}${unit === '' ? '' : ` ${unit}`}`
}

/** The value in force. */
export function current(rule: HouseRule): string {
  const own = (session.design!.houseRules.own as Record<string, unknown>)[rule.id]
  return own === undefined ? rule[session.design!.houseRules.set] : String(own)
}

export const isOwn = (rule: HouseRule) => rule.id in (session.design!.houseRules.own as Record<string, unknown>)

/** Own values with one of them changed, or given back to the set. */
function withOwn(rule: HouseRule, value: string | null) {
  const own = { ...(session.design!.houseRules.own as Record<string, unknown>) }
  delete own[rule.id]
  if (value !== null && !same(value, rule[session.design!.houseRules.set]))
    own[rule.id] = Number.isFinite(Number(value)) ? Number(value) : value
  return { path: '/houseRules/own', value: own }
}

/** Takes a value as the design's own, or what its set has. One step of undo. */
export const takeRule = (rule: HouseRule, value: string | null) => session.edit(withOwn(rule, value), true)

/** As it is typed: kept once the field is left. */
export const typeRule = (rule: HouseRule, value: string) => session.edit(withOwn(rule, value))

/** A whole set, without values of one's own. One step of undo. */
export const takeSchool = (set: School) => session.edit({ path: '/houseRules', value: { set, own: {} } }, true)

/** The rule in which sizes of the other series are chosen has no place beside its twin. */
export const isOther = (rule: HouseRule) =>
  rule.id === (session.units === 'imperial' ? 'cable-practice-metric' : 'cable-practice-awg')
