/** Reading and writing quantities: the one place where units are converted. */
import figures from '../../../docs/format/figures.json'

export interface Shown {
  text: string
  unit: string
}

export type UnitSystem = 'metric' | 'imperial'

const FEET = 0.3048

/** Of a unit's bands the first counts whose bounds the figure keeps; the core writes its sentences by the same table. */
interface Band {
  from?: number
  above?: number
  times?: number
  unit: string
  decimals?: number
  asNeeded?: boolean
  significant?: number
}

const table = figures as Record<string, Band[] | undefined>

const numbers = new Map<string, Intl.NumberFormat>()

function formatted(value: number, least: number, most: number): string {
  const key = `${least} ${most}`
  let format = numbers.get(key)
  if (!format) {
    format = new Intl.NumberFormat('en-GB', { minimumFractionDigits: least, maximumFractionDigits: most })
    numbers.set(key, format)
  }
  // Fifteen digits are what a number is read as: 0.0295 × 100 is a half, not a little less.
  return format.format(Number(value.toPrecision(15))).replace('-', '−')
}

/** A figure that may not be known, which is neither nothing nor little. */
export function known(value: number | null, said: (value: number) => string): string {
  return value === null ? 'not known' : said(value)
}

export function num(value: number, decimals = 0): string {
  return formatted(value, decimals, decimals)
}

/** As many decimals as the number has, up to a limit. */
function plain(value: number, most = 3): string {
  return formatted(value, 0, most)
}

/** A value as the instrument shows it. Units are those of the Evaluation: W, Wh, A, V, fraction, ohm, m, … */
export function show(value: number, unit: string, system: UnitSystem = 'metric', currency = ''): Shown {
  if (unit === 'money') return { text: num(value), unit: currency }
  const bands = (system === 'imperial' && table[`${unit} imperial`]) || table[unit]
  if (!bands) return { text: plain(value), unit }
  const size = Math.abs(value)
  const band = bands.find((b) => size >= (b.from ?? 0) && (b.above === undefined || size > b.above)) ?? bands.at(-1)!
  const scaled = value * (band.times ?? 1)
  const decimals = band.decimals ?? 0
  const text = band.significant
    ? formatted(Number(scaled.toPrecision(band.significant)), 0, 12)
    : formatted(scaled, band.asNeeded ? 0 : decimals, decimals)
  return { text, unit: band.unit }
}

/** A number as it is, with the decimals it has. */
export function plainNumber(value: number): string {
  return plain(value)
}

export function say(value: number, unit: string, system: UnitSystem = 'metric'): string {
  const shown = show(value, unit, system)
  return shown.unit ? `${shown.text} ${shown.unit}` : shown.text
}

/** Real volts, without needless zeros: 25.6 V, 12 V. */
export function sayVolts(value: number): string {
  return `${plain(value, 2)} V`
}

/** What a field holds: its base unit and the words it takes for it. */
export type Kind =
  'power' | 'current' | 'voltage' | 'energy' | 'charge' | 'length' | 'hours' | 'seconds' | 'count' | 'share' | 'number'

const units: Record<Kind, Record<string, number>> = {
  power: { w: 1, kw: 1000, watt: 1, watts: 1, mw: 0.001 },
  current: { a: 1, ma: 0.001, amp: 1, amps: 1, ka: 1000 },
  voltage: { v: 1, mv: 0.001, volt: 1, volts: 1 },
  energy: { wh: 1, kwh: 1000 },
  charge: { ah: 1, mah: 0.001 },
  length: { m: 1, cm: 0.01, mm: 0.001, ft: FEET, "'": FEET, in: FEET / 12, '"': FEET / 12, feet: FEET },
  hours: { h: 1, min: 1 / 60, m: 1 / 60, hour: 1, hours: 1, days: 24, day: 24 },
  seconds: { s: 1, ms: 0.001, min: 60, sec: 1 },
  count: { '': 1, x: 1, '×': 1 },
  share: { '%': 0.01 },
  number: {},
}

export const base: Record<Kind, string> = {
  power: 'W',
  current: 'A',
  voltage: 'V',
  energy: 'Wh',
  charge: 'Ah',
  length: 'm',
  hours: 'h',
  seconds: 's',
  count: '',
  share: 'fraction',
  number: '',
}

/** No figure is longer, and a pattern takes its time with what is. */
const MOST = 60

export type Parsed = { value: number; said: boolean } | { reason: string }

/** Reads a typed quantity: `1.5k`, `3 kW`, `40 ft`, `12 min`, `25 %`. `said` tells that a unit other than the usual was understood. */
export function parse(text: string, kind: Kind, system: UnitSystem = 'metric'): Parsed {
  if (text.length > MOST) return { reason: 'is too long for a number' }
  const match =
    /^\s*([−-]?)\s*(\d[\d\s,]*(?:\.\d*)?|\.\d+)(?:e([+-]?\d{1,3}))?\s*(k(?![a-z]))?\s*([a-zµ%×'"]*)\s*$/i.exec(text)
  if (!match) return { reason: `“${text.trim().slice(0, 20)}” is not a number` }
  const number = Number((match[1] ? '-' : '') + match[2].replace(/[\s,]/g, '') + (match[3] ? `e${match[3]}` : ''))
  if (!Number.isFinite(number)) return { reason: 'is out of all measure' }
  const thousand = match[4] ? 1000 : 1
  const word = match[5].toLowerCase()
  if (word === '') {
    const usual = kind === 'length' && system === 'imperial' ? FEET : 1
    return { value: number * thousand * usual, said: thousand !== 1 }
  }
  const factor = units[kind][word]
  if (factor === undefined) return { reason: wrongUnit(word, kind) }
  return { value: number * thousand * factor, said: factor !== 1 || thousand !== 1 }
}

function wrongUnit(word: string, kind: Kind): string {
  if (kind === 'power' && word === 'va') return 'VA is apparent power: give watts, VA × power factor'
  if (kind === 'power' && (word === 'wh' || word === 'kwh')) return 'that is energy: watts are wanted here'
  if (kind === 'current' && word === 'ah') return 'that is charge: amperes are wanted here'
  const known = Object.keys(units[kind]).filter((u) => u.length > 0 && u.length < 4)
  return `“${word}” does not fit: ${known.slice(0, 4).join(', ')}`
}

/** How a value reads in a field that is not being typed in. */
export function fieldText(value: number, kind: Kind, system: UnitSystem): string {
  if (kind === 'share') return `${plain(value * 100, 1)} %`
  if (kind === 'count' || kind === 'number') return plain(value).replace(/,/g, '')
  if (kind === 'length') {
    const shown = show(value, 'm', system)
    return `${shown.text} ${shown.unit}`
  }
  if (kind === 'seconds') return `${plain(value, 2)} s`
  return `${plain(value, 2)} ${base[kind]}`
}

export type Times = { windows: number[][] } | { hours: number } | { reason: string }

export function clock(hour: number): string {
  const minutes = Math.round(hour * 60)
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}

/** Reads `10:00-10:10, 15:00-15:10` as times of day, or `4 h`, `12 min` as hours a day. */
export function parseTimes(text: string): Times {
  if (!/[-–]|:|\bto\b/i.test(text)) {
    const hours = parse(text, 'hours')
    if ('reason' in hours) return { reason: 'give hours (4 h, 12 min) or times (10:00-10:10)' }
    return hours.value < 0 || hours.value > 24 ? { reason: 'a day has 24 hours' } : { hours: hours.value }
  }
  const windows: number[][] = []
  for (const part of text.split(/[,;]/)) {
    const match = /^\s*(\d{1,2})(?:[:.](\d{2}))?\s*(?:[-–]|\bto\b)\s*(\d{1,2})(?:[:.](\d{2}))?\s*$/i.exec(part)
    if (!match) return { reason: `“${part.trim()}” is not a time such as 10:00-10:10` }
    const [from, to] = [Number(match[1]) + Number(match[2] ?? 0) / 60, Number(match[3]) + Number(match[4] ?? 0) / 60]
    if (from >= 24 || to > 24 || Number(match[2] ?? 0) > 59 || Number(match[4] ?? 0) > 59)
      return { reason: 'times run from 0:00 to 24:00' }
    if (from === to) return { reason: 'a window that ends when it starts has no length' }
    windows.push([from, to])
  }
  return { windows }
}

export function timesText(load: { windows: number[][] | null; hours: number | null }): string {
  if (load.windows) return load.windows.map(([from, to]) => `${clock(from)}–${clock(to)}`).join(', ')
  return load.hours === null ? '' : say(load.hours, 'h')
}

/** Strings are lettered A … Z, AA … from the positive take-off; the core's 1 is A. */
export function stringName(number: number): string {
  return number <= 26
    ? String.fromCharCode(64 + number)
    : stringName(Math.floor((number - 1) / 26)) + stringName(((number - 1) % 26) + 1)
}

export function sizeName(size: string, conductors: number): string {
  return conductors > 1 ? `${conductors} × ${size}` : size
}
