import { num, say } from '../../ui/quantity'
import { readNumber } from '../../ui/written'

/** The whole demand in one phrase: "500 W for 4 hours", "55 A for 9 hours", "0.9 kWh a night", "20 W for 3 days". */
export interface Phrase {
  watts: number | null
  amps: number | null
  energyWh: number | null
  /** Hours a day, to 24. */
  hours: number
  /** Days it is to last without charge, where the phrase says more than one. */
  days: number | null
  /** Charge can only be had at the bank. */
  direct: boolean
  understood: string
}

const NIGHT = 14

export function readPhrase(text: string): Phrase | { reason: string } {
  const written = readNumber(text)
  const match =
    written &&
    /^(k?wh|k?w|m?ah|m?a|amps?|watts?|hp)(?![a-z])\s*(?:(?:for|over|in|during|a|per|each|every|\/)?\s*(.*?))\s*$/i.exec(
      written.rest,
    )
  if (!match || written.value < 0)
    return { reason: 'say it as 500 W for 4 hours, 55 A for 9 hours, or 0.9 kWh a night' }
  if (written.other !== null)
    return {
      reason: `that can be ${written.value} or ${written.other} ${match[1]}: write it without the ${written.by}`,
    }
  const value = Number(`${written.value}e${written.thousand ? 3 : 0}`)
  const unit = match[1]
    .toLowerCase()
    .replace(/^(amp|amps)$/, 'a')
    .replace(/^(watt|watts)$/, 'w')
  if (unit === 'hp')
    return { reason: `a horsepower of a motor is 746 W out, and it takes more in: give its amperes, or its watts` }
  const span = spanOf(match[2])
  if ('reason' in span) return span
  const { hours, days } = span
  const whole = `${say(hours, 'h')}${days ? ` a day, ${num(days)} days without charge` : hours === NIGHT && /night/i.test(match[2]) ? ', 18:00 to 08:00' : ''}`
  const none = { watts: null, amps: null, energyWh: null, hours, days, direct: false }
  switch (unit) {
    case 'w':
    case 'kw': {
      const watts = unit === 'kw' ? value * 1000 : value
      return { ...none, watts, understood: `${num(watts)} W for ${whole}` }
    }
    case 'wh':
    case 'kwh': {
      const energyWh = unit === 'kwh' ? value * 1000 : value
      return {
        ...none,
        energyWh,
        understood: `${say(energyWh, 'Wh')} over ${whole}: ${num(energyWh / hours)} W on the average`,
      }
    }
    case 'ah': {
      const amps = Number((value / hours).toPrecision(9))
      return {
        ...none,
        amps,
        direct: true,
        understood: `${say(value, 'Ah')} over ${whole}: ${say(amps, 'A')} on the average`,
      }
    }
    default: {
      const amps = unit === 'ma' ? value / 1000 : value
      return { ...none, amps, direct: true, understood: `${say(amps, 'A')} at the bank for ${whole}` }
    }
  }
}

function spanOf(text: string): { hours: number; days: number | null } | { reason: string } {
  const words = text.trim().toLowerCase()
  if (words === '' || words === 'day' || words === 'a day' || words === 'daily') return { hours: 24, days: null }
  if (/night|overnight/.test(words)) return { hours: NIGHT, days: null }
  const match =
    /^([\d.,]+|½|\d+½|an?|one|half an?)\s*(h|hours?|hrs?|min|minutes?|days?|d)(?:\s*(?:a|per|each|every)\s*day)?$/.exec(
      words,
    )
  if (!match) return { reason: `“${text.trim().slice(0, 24)}” is no span such as 4 hours, 90 min, 3 days or a night` }
  const count = /^half/.test(match[1]) ? 0.5 : /^(an?|one)$/.test(match[1]) ? 1 : (readNumber(match[1])?.value ?? NaN)
  const hours = /^h/.test(match[2]) ? count : /^m/.test(match[2]) ? count / 60 : count * 24
  if (!(hours > 0)) return { reason: 'for no time at all nothing is needed' }
  if (hours <= 24) return { hours, days: null }
  if (hours > 24 * 60) return { reason: 'more than sixty days are not for a battery' }
  return { hours: 24, days: Number((hours / 24).toFixed(3)) }
}
