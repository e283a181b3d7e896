import { num, parse, say } from './quantity'
import { readNumber } from './written'

/** Watts and amperes, watts and watt-hours, volt-amperes, "amps per hour": what was probably meant, and the other reading to choose. */
export interface Reading {
  /** Real watts, or amperes. */
  watts?: number
  amps?: number
  va?: number
  powerFactor?: number
}

export interface Slip {
  /** What stands now, in words. */
  understood: string
  reading: Reading
  /** The other readings. */
  others: { text: string; reading: Reading }[]
}

/** Power factor of a load whose plate says only VA. */
export const ASSUMED_POWER_FACTOR = 0.8

/** A single load of so many watts is hardly to be found on a battery. */
const TOO_MANY_W = 20_000
/** An appliance of so few watts hardly has a plate in watts. */
const TOO_FEW_W = 10

interface About {
  /** Hours on a day times quantity times duty: what a day's energy is divided by; 0: not known yet. */
  hours: number
  powerFactor: number | null
  inAmps: boolean
}

/** Reads what one unit draws where the text is, or may be, a slip. Null where it is plain. A reason where nothing can be made of it. */
export function slip(text: string, about: About): Slip | { reason: string; others: Slip['others'] } | null {
  const written = readNumber(text)
  // Which of two readings is meant is asked before anything else.
  if (!written || written.value < 0 || written.other !== null) return null
  const kilo = written.thousand || /^k/i.test(written.rest)
  if (/^k?w?$/i.test(written.rest) && !about.inAmps) {
    const watts = Number(`${written.value}e${kilo && !written.thousand ? 3 : 0}`)
    if (watts >= TOO_MANY_W && kilo)
      return {
        understood: `${num(watts)} W`,
        reading: { watts },
        others: [{ text: `${num(watts / 1000)} W`, reading: { watts: watts / 1000 } }],
      }
    if (watts > 0 && watts < TOO_FEW_W && !kilo && !Number.isInteger(watts))
      return {
        understood: `${watts} W`,
        reading: { watts },
        others: [{ text: `${watts} kW`, reading: { watts: Number(`${watts}e3`) } }],
      }
  }
  const unit = written.rest.toLowerCase().replace(/[.\s]/g, '')
  const large = !written.thousand && unit.length > 1 && unit.startsWith('k')
  const value = Number(`${written.value}e${large ? 3 : 0}`)
  if (!Number.isFinite(value)) return null
  const word = large ? unit.slice(1) : unit
  const rate = (reading: Reading) => [{ text: read(reading), reading }]
  switch (word) {
    case 'va': {
      const powerFactor = about.powerFactor ?? ASSUMED_POWER_FACTOR
      const watts = Number((value * powerFactor).toFixed(6))
      return {
        understood: `${num(watts)} W at a power factor of ${powerFactor}${about.powerFactor === null ? ', assumed' : ''}`,
        reading: { watts, va: value, powerFactor },
        others: rate({ watts: value }),
      }
    }
    case 'ah':
    case 'mah': {
      const ah = word === 'mah' ? value / 1000 : value
      if (!(about.hours > 0))
        return { reason: 'Ah is charge: first say how long it runs a day', others: rate({ amps: ah }) }
      return {
        understood: `${say(ah, 'Ah')} a day: ${read({ amps: ah / about.hours })} while on`,
        reading: { amps: ah / about.hours },
        others: rate({ amps: ah }),
      }
    }
    case 'wh': {
      if (!(about.hours > 0))
        return { reason: 'Wh is energy: first say how long it runs a day', others: rate({ watts: value }) }
      return {
        understood: `${say(value, 'Wh')} a day: ${read({ watts: value / about.hours })} while on`,
        reading: { watts: value / about.hours },
        others: rate({ watts: value }),
      }
    }
    case 'a/h':
    case 'aperhour':
    case 'ampsperhour':
    case 'amps/hour':
    case 'ampsanhour':
    case 'amp/h':
    case 'amps/h': {
      const day = about.hours > 0 ? [{ text: `${num(value)} Ah a day`, reading: { amps: value / about.hours } }] : []
      return {
        understood: `${read({ amps: value })}: amperes are a rate already`,
        reading: { amps: value },
        others: day,
      }
    }
    case 'w/h':
    case 'wperhour':
    case 'wattsperhour':
    case 'watts/hour':
    case 'watts/h':
    case 'wattsanhour': {
      const day = about.hours > 0 ? [{ text: `${num(value)} Wh a day`, reading: { watts: value / about.hours } }] : []
      return {
        understood: `${read({ watts: value })}: watts are a rate already`,
        reading: { watts: value },
        others: day,
      }
    }
  }
  return null
}

function read({ watts, amps }: Reading): string {
  return amps !== undefined ? say(amps, 'A') : watts! >= 10 ? `${num(watts!)} W` : `${num(watts!, 1)} W`
}

/** The same for a field of plain watts: what a start takes. */
export function powerOffers(text: string): { text: string; value: number }[] {
  const parsed = parse(text, 'power')
  if ('reason' in parsed) return []
  if (parsed.value >= TOO_MANY_W && /k/i.test(text))
    return [{ text: `${num(parsed.value / 1000)} W`, value: parsed.value / 1000 }]
  if (parsed.value > 0 && parsed.value < TOO_FEW_W && !Number.isInteger(parsed.value) && !/k/i.test(text))
    return [{ text: `${parsed.value} kW`, value: Number(`${parsed.value}e3`) }]
  return []
}
