/** Numbers as people write them; `WrittenNumber` in the core reads by the same rules, and one list of cases is held against both. */
export interface Written {
  value: number
  /** The other reading of one comma or point with exactly three digits after it. */
  other: number | null
  by: ',' | '.' | null
  /** A `k` stood behind it. */
  thousand: boolean
  /** What follows the number: a unit, or words. */
  rest: string
}

const NUMBER =
  /^\s*([-−+]?)\s*((?:\d+\s+)?\d+\s*\/\s*\d+|\d*\s*[¼½¾⅓⅔⅛⅜⅝⅞]|[.,]?\d(?:[\d.,'’\s]*\d)?[.,]?)(?:e([+-]?\d{1,3}))?\s*(.*)$/is

const PARTS: Record<string, number> = {
  '¼': 1 / 4,
  '½': 1 / 2,
  '¾': 3 / 4,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
}

/** Parts of a whole that one writes with a stroke; 12/24 is two numbers. */
const WHOLES = [2, 3, 4, 5, 6, 8, 10, 16]

/** No figure is longer, and a pattern takes its time with what is. */
export const MOST = 60

/** A conductor's size such as 2/0, which is no number. */
export const isSize = (text: string) => /^\s*[1-9]\s*\/\s*0(?![\d.,])/.test(text)

export function readNumber(text: string): Written | null {
  if (text.length > MOST) return null
  const match = NUMBER.exec(text)
  if (!match) return null
  const sign = match[1] === '-' || match[1] === '−' ? -1 : 1
  let rest = match[4].trim()
  const thousand = /^k(?![a-z])/i.test(rest)
  if (thousand) rest = rest.slice(1).trim()
  const power = Number(match[3] ?? 0) + (thousand ? 3 : 0)
  const made = (of: Reading) => ({ value: sign * of.value, other: of.other === null ? null : sign * of.other })
  const reading = fraction(match[2], power) ?? digits(match[2], power)
  if (!reading) return null
  return { ...made(reading), by: reading.by, thousand, rest }
}

interface Reading {
  value: number
  other: number | null
  by: ',' | '.' | null
}

function fraction(body: string, power: number): Reading | null {
  const sign = /^(\d*)\s*([¼½¾⅓⅔⅛⅜⅝⅞])$/.exec(body)
  const stroke = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(body)
  let value: number
  if (sign) value = Number(sign[1]) + PARTS[sign[2]]
  else if (stroke && WHOLES.includes(Number(stroke[3])) && Number(stroke[2]) < Number(stroke[3]))
    value = Number(stroke[1] ?? 0) + Number(stroke[2]) / Number(stroke[3])
  else return null
  return { value: value * 10 ** power, other: null, by: null }
}

function digits(body: string, power: number): Reading | null {
  const sure = (plain: string): Reading => ({ value: Number(`${plain}e${power}`), other: null, by: null })
  let text = body
  if (/[\s'’]/.test(text)) {
    if (!/^\d{1,3}(?:[\s'’]\d{3})+(?:[.,]\d*)?$/.test(text)) return null
    text = text.replace(/[\s'’]/g, '')
    return sure(text.replace(',', '.'))
  }
  const commas = text.split(',').length - 1
  const points = text.split('.').length - 1
  if (commas + points === 0) return /^\d+$/.test(text) ? sure(text) : null
  if (commas + points > 1) {
    if (/^\d{1,3}(?:,\d{3})+(?:\.\d*)?$/.test(text)) return sure(text.replaceAll(',', ''))
    if (/^\d{1,3}(?:\.\d{3})+(?:,\d*)?$/.test(text)) return sure(text.replaceAll('.', '').replace(',', '.'))
    return null
  }
  const decimal = sure(text.replace(',', '.'))
  if (!/^[1-9]\d{0,2}[.,]\d{3}$/.test(text)) return decimal
  return { ...decimal, other: sure(text.replace(/[.,]/, '')).value, by: commas ? ',' : '.' }
}
