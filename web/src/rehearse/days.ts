import { clock, num, say } from '../ui/quantity'

/** Quarters of an hour in a day. */
export const QUARTERS = 96

const DAY_MS = 86_400_000
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']

/** The days of a run by their number, from its first. */
export class Calendar {
  readonly #first: number

  constructor(first: string) {
    this.#first = Date.parse(`${first}T00:00Z`)
  }

  #of(day: number): Date {
    return new Date(this.#first + day * DAY_MS)
  }

  weekday(day: number): string {
    return WEEKDAYS[this.#of(day).getUTCDay()]
  }
  /** 3 Dec */
  date(day: number): string {
    const d = this.#of(day)
    return `${d.getUTCDate()} ${MONTHS[d.getUTCMonth()]}`
  }
  month(day: number): string {
    return MONTHS[this.#of(day).getUTCMonth()]
  }
  isFirstOfMonth(day: number): boolean {
    return this.#of(day).getUTCDate() === 1
  }
  year(day: number): number {
    return this.#of(day).getUTCFullYear()
  }
  /** 3 Dec 15:00 */
  moment(hour: number): string {
    const day = Math.floor(hour / 24)
    return `${this.date(day)} ${clock(hour - day * 24)}`
  }
  /** As the document writes it. */
  iso(hour: number): string {
    return new Date(this.#first + Math.round(hour * 60) * 60_000).toISOString().slice(0, 16)
  }
  hourOf(iso: string): number {
    return (Date.parse(`${iso}Z`) - this.#first) / 3_600_000
  }
}

/** Dark is counted in hours, however many they are. */
export const darkHours = (h: number): string => (h < 1 && h > 0 ? say(h, 'h') : `${num(h, h < 100 && h % 1 ? 1 : 0)} h`)

/** Stretches of true in a list, each from the first to behind the last. */
export function stretches(list: boolean[]): [number, number][] {
  const found: [number, number][] = []
  let from = -1
  for (let i = 0; i <= list.length; i++)
    if (list[i] && from < 0) from = i
    else if (!list[i] && from >= 0) {
      found.push([from, i])
      from = -1
    }
  return found
}
