import type { Source } from '../../api/client'

export type SourceKind = Source['kind']

export const kinds: { kind: SourceKind; name: string; words: string }[] = [
  { kind: 'solar', name: 'Roof', words: 'solar array on a controller' },
  { kind: 'dc-dc', name: 'Drive', words: 'engine through a DC–DC charger' },
  { kind: 'alternator', name: 'Alternator', words: 'alternator straight on' },
  { kind: 'mains', name: 'Plug', words: 'mains charger' },
  { kind: 'generator', name: 'Generator', words: 'generator with a charger' },
  { kind: 'other', name: 'Wind', words: 'wind, water or other, watts by the hour' },
]

/** What its hours are called on the day. */
export const hoursOf: Record<SourceKind, string> = {
  solar: 'sun',
  'dc-dc': 'drive',
  alternator: 'drive',
  mains: 'plugged in',
  generator: 'running',
  other: 'by the hour',
}

export type Hatch = 'slanted' | 'upright' | 'level' | 'dense'

/** The hatch of its energy, which its row shows too. */
export const hatchOf: Record<SourceKind, Hatch> = {
  solar: 'slanted',
  'dc-dc': 'upright',
  alternator: 'upright',
  mains: 'level',
  generator: 'level',
  other: 'dense',
}

const settings: Source['settings'] = {
  preset: null,
  absorbV: null,
  absorbMinutes: null,
  floatV: null,
  equaliseV: null,
  compensationMvPerK: null,
  leastC: null,
  amps: null,
}

export const blankArray: NonNullable<Source['array']> = {
  module: {
    name: '',
    watts: 0,
    vocV: null,
    vmpV: null,
    iscA: null,
    maxFuseA: null,
    vocCoeffPerK: null,
    vmpCoeffPerK: null,
  },
  series: 1,
  strings: 1,
  tiltDeg: 0,
  azimuthDeg: 0,
  shade: 0,
  unlike: false,
  controllerMaxV: null,
  controllerMaxIscA: null,
  startHeadroomV: null,
}

export const blankEngine: NonNullable<Source['engine']> = {
  alternatorA: 0,
  vehicleA: 0,
  alternatorV: null,
  hotFactor: null,
}

export const blankSupply: NonNullable<Source['supply']> = {
  volts: null,
  amps: null,
  watts: null,
  share: null,
  otherW: 0,
  efficiency: null,
  powerFactor: null,
}

/** A source of which nothing is said yet but its kind and name. */
export function newSource(kind: SourceKind, name: string, others: Source[]): Source {
  let n = 1
  while (others.some((s) => s.id === `s${n}`)) n++
  return {
    id: `s${n}`,
    kind,
    name,
    amps: null,
    settingV: null,
    place: null,
    array: kind === 'solar' ? blankArray : null,
    engine: kind === 'dc-dc' || kind === 'alternator' ? blankEngine : null,
    supply: kind === 'mains' || kind === 'generator' ? blankSupply : null,
    windows: null,
    weekdays: null,
    wattsByHour: kind === 'other' ? Array.from({ length: 24 }, () => 0) : null,
    start: null,
    settings,
    presets: [],
  }
}
