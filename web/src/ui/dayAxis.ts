/** Share of the paper the stretched hour takes. */
const STRETCH = 0.62

const FIVE = 1 / 12
const ONE = 1 / 60

/** The day's hours on paper. One hour may be stretched, so that its minutes can be set; the others share what is left. */
export class DayAxis {
  constructor(
    readonly left: number,
    readonly width: number,
    /** The hour that is stretched, 0 to 23; null: none. */
    readonly stretched: number | null = null,
  ) {}

  /** The same hours on paper that begins elsewhere. */
  at(left: number): DayAxis {
    return new DayAxis(left, this.width, this.stretched)
  }

  x(hour: number): number {
    return this.left + this.width * this.#share(hour)
  }

  #share(hour: number): number {
    if (this.stretched === null) return hour / 24
    const other = (1 - STRETCH) / 23
    const inside = Math.min(1, Math.max(0, hour - this.stretched))
    return other * (hour - inside) + STRETCH * inside
  }

  /** The hour at a place on paper, held to the day. */
  hour(x: number): number {
    const share = Math.min(1, Math.max(0, (x - this.left) / this.width))
    if (this.stretched === null) return share * 24
    const other = (1 - STRETCH) / 23
    const before = other * this.stretched
    if (share <= before) return share / other
    if (share < before + STRETCH) return this.stretched + (share - before) / STRETCH
    return this.stretched + 1 + (share - before - STRETCH) / other
  }

  /** What a drag snaps to at this hour [h]: five minutes, or one in the stretched hour. */
  step(hour: number): number {
    return this.stretched !== null && hour >= this.stretched - 1e-9 && hour <= this.stretched + 1 + 1e-9 ? ONE : FIVE
  }

  snap(hour: number): number {
    const step = this.step(hour)
    return Math.round(hour / step) * step
  }

  /** Hours that carry a label, as far apart as they can be read. */
  ticks(least = 44): number[] {
    const every = this.stretched === null ? [1, 2, 3, 6, 12].find((n) => (this.width / 24) * n >= least) : 24
    const marks: number[] = []
    for (let h = 0; h <= 24; h += every ?? 12) marks.push(h)
    if (this.stretched === null) return marks
    const from = this.stretched
    const minutes = [5, 10, 15, 20, 30].find((m) => ((this.width * STRETCH) / 60) * m >= least) ?? 60
    const close: number[] = []
    for (let m = 0; m <= 60; m += minutes) close.push(from + m / 60)
    return [...marks.filter((h) => close.every((c) => Math.abs(this.x(c) - this.x(h)) >= least)), ...close]
  }
}
