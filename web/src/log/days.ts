/** Days of a log, which stand on no zone: YYYY-MM-DD counts as it is written. */

const DAY_MS = 86_400_000
const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

export function numberOf(day: string): number {
  return Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / DAY_MS
}

export function dayOf(number: number): string {
  return new Date(number * DAY_MS).toISOString().slice(0, 10)
}

export function weekday(day: string): string {
  return WEEKDAYS[new Date(numberOf(day) * DAY_MS).getUTCDay()]
}

/** 21 Nov. */
export function short(day: string): string {
  return `${Number(day.slice(8, 10))} ${MONTHS[Number(day.slice(5, 7)) - 1]}`
}

/** 21 November 2026 is 21 Nov 2026. */
export function long(day: string): string {
  return `${short(day)} ${day.slice(0, 4)}`
}

/** Apr 2024. */
export function month(day: string): string {
  return `${MONTHS[Number(day.slice(5, 7)) - 1]} ${day.slice(0, 4)}`
}

/** Days from a day, with the share of the day that a moment is. */
export function since(moment: string, from: string): number {
  const [h, m] = moment.length > 10 ? [Number(moment.slice(11, 13)), Number(moment.slice(14, 16))] : [0, 0]
  return numberOf(moment.slice(0, 10)) - numberOf(from) + (h + m / 60) / 24
}

/** The day it is here. */
export function today(): string {
  const t = new Date()
  return dayOf(Date.UTC(t.getFullYear(), t.getMonth(), t.getDate()) / DAY_MS)
}
