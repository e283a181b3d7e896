import type { LibraryLoad, Load, BankEvaluation } from '../../api/client'
import { fieldText, num, plainNumber, say, timesText } from '../../ui/quantity'

/** Ids are never used again, so they are not counted up. */
export function newId(letter = 'l'): string {
  return `${letter}${Date.now().toString(36)}${Math.floor(Math.random() * 46656).toString(36)}`
}

/** A load that waits for its figures. */
export function newLoad(name = ''): Load {
  return {
    id: newId(),
    name,
    kind: 'ac',
    quantity: 1,
    watts: 0,
    amps: null,
    volts: null,
    va: null,
    powerFactor: null,
    adapterEfficiency: null,
    duty: 1,
    windows: null,
    hours: 0,
    surgeWatts: 0,
    startSeconds: null,
    states: null,
    season: 'both',
    window: null,
    waveSensitive: false,
    assumed: false,
    mustStay: false,
    hasReserve: false,
    tap: null,
  }
}

/** A load of the library as it would be fed here: at the bank where the bus suits it, else behind a 12 V converter. */
export function fromLibrary({ load }: LibraryLoad, voltage: BankEvaluation['voltage'] | null): Load {
  const taken = { ...load, id: newId() }
  if (taken.kind !== 'dc' || !taken.window || !voltage) return taken
  const suits = taken.window.minV <= voltage.lowV && taken.window.maxV >= voltage.greatestV
  if (suits) return taken.watts === null ? taken : { ...taken, volts: null }
  return taken.window.minV <= 12 && taken.window.maxV >= 12 ? { ...taken, kind: 'converter', volts: 12 } : taken
}

export const kinds = [
  { value: 'ac', text: 'AC, by the inverter' },
  { value: 'dc', text: 'DC, at the bank' },
  { value: 'converter', text: 'DC, by a converter' },
]

/** A load in a line, as one would say it. */
export function summary(load: Load): string {
  const draw = load.states?.length
    ? `${load.states.length} states, to ${fieldText(Math.max(...load.states.map((s) => s.amps)), 'current', 'metric')}`
    : load.amps !== null
      ? fieldText(load.amps, 'current', 'metric')
      : `${plainNumber(load.watts ?? 0)} W`
  const volts = load.volts !== null && load.kind !== 'ac' ? ` at ${say(load.volts, 'class')}` : ''
  const many = load.quantity === 1 ? '' : `${load.quantity} × `
  const start = load.surgeWatts > 0 ? `, start ${num(load.surgeWatts)} W` : ''
  const duty = load.duty < 1 ? `, duty ${say(load.duty, 'fraction')}` : ''
  const when = load.windows ? '' : `, ${timesText(load)} a day`
  const season = load.season === 'both' ? '' : `, in ${load.season}`
  return `${many}${draw}${volts}${start}${duty}${when}${season}`
}
