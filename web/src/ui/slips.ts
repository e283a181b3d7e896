import { num, parse, say } from './quantity'

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
  const match = /^\s*(\d[\d\s,]*(?:\.\d*)?|\.\d+)\s*(k?)\s*([a-z/. ]+?)\s*$/i.exec(text)
  const plain = /^\s*(\d+(?:\.\d+)?)\s*(k?)\s*w?\s*$/i.exec(text)
  if (plain && !about.inAmps) {
    const watts = Number(plain[1]) * (plain[2] ? 1000 : 1)
    if (watts >= TOO_MANY_W && plain[2])
      return {
        understood: `${num(watts)} W`,
        reading: { watts },
        others: [{ text: `${num(watts / 1000)} W`, reading: { watts: watts / 1000 } }],
      }
    if (watts > 0 && watts < TOO_FEW_W && !plain[2] && plain[1].includes('.'))
      return {
        understood: `${plain[1]} W`,
        reading: { watts },
        others: [{ text: `${plain[1]} kW`, reading: { watts: watts * 1000 } }],
      }
  }
  if (!match) return null
  const value = Number(match[1].replace(/[\s,]/g, '')) * (match[2] ? 1000 : 1)
  if (!Number.isFinite(value)) return null
  const word = match[3].toLowerCase().replace(/[. ]/g, '')
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
  if (parsed.value > 0 && parsed.value < TOO_FEW_W && text.includes('.') && !/k/i.test(text))
    return [{ text: `${text.trim().replace(/\s*w$/i, '')} kW`, value: parsed.value * 1000 }]
  return []
}
