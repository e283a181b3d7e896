/** Reading and writing quantities: the one place where units are converted. */
import { isSize, MOST, readNumber } from './written'
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

/** Most figures of a screen stay as they are from key to key, and writing one takes its time. */
const written = new Map<string, string>()
const REMEMBERED = 4000

function formatted(value: number, least: number, most: number): string {
  const key = `${value} ${least} ${most}`
  let text = written.get(key)
  if (text === undefined) {
    if (written.size >= REMEMBERED) written.clear()
    text = write(value, least, most)
    written.set(key, text)
  }
  return text
}

function write(value: number, least: number, most: number): string {
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
  charge: { ah: 1, mah: 0.001, kah: 1000 },
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

/** A reading that is taken, with the other one where there is another; or why not, with the readings to choose between. */
export type Parsed = { value: number; said: boolean; other?: number } | { reason: string; choices?: number[] }

/**
 * Reads a typed quantity: `1.5k`, `3 kW`, `40'`, `12 min`, `25 %`, `2,5`. `said` tells that something else than the usual was understood.
 * `fits` are the limits of the field: of two possible readings one that is out of them is none.
 */
export function parse(text: string, kind: Kind, system: UnitSystem = 'metric', fits = (_: number) => true): Parsed {
  if (text.length > MOST) return { reason: 'is too long for a number' }
  const feet = kind === 'length' ? feetAndInches(text) : null
  if (feet !== null) return { value: feet, said: true }
  if (isSize(text)) return { reason: `“${text.trim()}” is a conductor’s size, and a number is wanted` }
  const written = readNumber(text)
  if (!written || !/^[a-zµμω%×'’"”]*$/i.test(written.rest))
    return { reason: `“${text.trim().slice(0, 20)}” is not a number` }
  if (!Number.isFinite(written.value)) return { reason: 'is out of all measure' }
  const word = written.rest.toLowerCase().replace('’', "'").replace('”', '"')
  const factor = word === '' ? (kind === 'length' && system === 'imperial' ? FEET : 1) : units[kind][word]
  if (factor === undefined) return { reason: wrongUnit(word, kind) }
  const tidy = (value: number) => Number((value * factor).toPrecision(15))
  let said = written.thousand || (word !== '' && factor !== 1)
  let readings = [written.value, ...(written.other === null ? [] : [written.other])].map(tidy)
  if (kind === 'share' && word === '') {
    // 88 can only be a percentage; 0.5 may be a half, or half a percent.
    readings = readings.flatMap((v) => (v > 1 ? [v / 100] : v > 0 ? [v, v / 100] : [v]))
    said = true
  }
  if (kind === 'count' && readings.length > 1) readings = readings.filter(Number.isInteger)
  const fitting = readings.length > 1 ? readings.filter(fits) : readings
  if (fitting.length === 0) return { value: readings[0], said }
  if (fitting.length === 1) return { value: fitting[0], said: said || written.other !== null }
  // The point is the decimal one on this screen; a comma, and a share without its sign, can as well mean the other.
  if (written.by === '.' && kind !== 'share') return { value: fitting[0], said: true, other: fitting[1] }
  return { reason: `“${text.trim()}” can be read ${fitting.length === 2 ? 'two' : 'several'} ways`, choices: fitting }
}

/** `12' 6"`, in metres. */
function feetAndInches(text: string): number | null {
  const match = /^\s*(\d+)\s*(?:'|’|ft)\s*(\d+(?:[.,]\d+)?)\s*(?:"|”|in)\s*$/i.exec(text)
  return match ? Number(((Number(match[1]) + Number(match[2].replace(',', '.')) / 12) * FEET).toFixed(6)) : null
}

/** What a field answers to a quantity that was typed: what it understood, or why not, and other readings to be taken with a press. */
export function answer(parsed: Parsed, write: (value: number) => string, put: (value: number) => void) {
  const offer = (value: number) => ({ text: write(value), take: () => put(value) })
  if ('reason' in parsed) return { reason: parsed.reason, offers: (parsed.choices ?? []).map(offer) }
  put(parsed.value)
  return {
    ...(parsed.said ? { understood: write(parsed.value) } : {}),
    offers: parsed.other === undefined ? [] : [offer(parsed.other)],
  }
}

function wrongUnit(word: string, kind: Kind): string {
  if (kind === 'power' && word === 'va') return 'VA is apparent power: give watts, VA × power factor'
  if (kind === 'power' && (word === 'wh' || word === 'kwh')) return 'that is energy: watts are wanted here'
  if (kind === 'current' && word === 'ah') return 'that is charge: amperes are wanted here'
  const known = Object.keys(units[kind]).filter((u) => u.length > 0 && u.length < 4)
  return `“${word}” does not fit: ${known.slice(0, 4).join(', ')}`
}

/** In a field nothing is grouped: what stands there is read back as it is. */
const ungrouped = (value: number, most = 3) => plain(value, most).replace(/,/g, '')

/** How a value reads in a field that is not being typed in. */
export function fieldText(value: number, kind: Kind, system: UnitSystem): string {
  if (kind === 'share') return `${plain(value * 100, 1)} %`
  if (kind === 'count') return ungrouped(value)
  // A coefficient a kelvin has its figures far behind the point.
  if (kind === 'number') return ungrouped(value, Math.abs(value) < 0.1 ? 6 : 3)
  if (kind === 'length') {
    const shown = show(value, 'm', system)
    return `${shown.text.replace(/,/g, '')} ${shown.unit}`
  }
  if (kind === 'seconds') return `${plain(value, 2)} s`
  return `${ungrouped(value, 2)} ${base[kind]}`
}

export type Times = { windows: number[][] } | { hours: number } | { reason: string }

export function clock(hour: number): string {
  const minutes = Math.round(hour * 60)
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}

/** Reads `10:00-10:10, 15:00-15:10` as times of day, or `4 h`, `12 min` as hours a day. */
export function parseTimes(text: string): Times {
  if (!/[-–]|:|\bto\b/i.test(text)) {
    const hours = parse(text, 'hours', 'metric', (h) => h <= 24)
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
