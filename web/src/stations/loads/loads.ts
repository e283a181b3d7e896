import type { Load } from '../../api/client'
import { fieldText, num, say, timesText } from '../../ui/quantity'

/** A load that waits for its figures. Ids are never used again, so they are not counted up. */
export function newLoad(): Load {
  return {
    id: `l${Date.now().toString(36)}${Math.floor(Math.random() * 1296).toString(36)}`,
    name: '',
    kind: 'ac',
    quantity: 1,
    watts: 0,
    amps: null,
    volts: null,
    va: null,
    powerFactor: null,
    duty: 1,
    windows: null,
    hours: 0,
    surgeWatts: 0,
    startSeconds: null,
    states: null,
    season: 'both',
    window: null,
    waveSensitive: false,
    tap: null,
  }
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
      : `${num(load.watts ?? 0)} W`
  const volts = load.volts !== null && load.kind !== 'ac' ? ` at ${say(load.volts, 'class')}` : ''
  const many = load.quantity === 1 ? '' : `${load.quantity} × `
  const start = load.surgeWatts > 0 ? `, starts at ${num(load.surgeWatts)} W` : ''
  const duty = load.duty < 1 ? `, duty ${say(load.duty, 'fraction')}` : ''
  const when = load.windows ? '' : `, ${timesText(load)} a day`
  return `${many}${draw}${volts}${start}${duty}${when}`
}
