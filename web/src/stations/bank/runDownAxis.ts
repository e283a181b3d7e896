import { ticks } from '../../drawing/geometry'

/** The hours of a run-down on paper, with room for the dark that follows. */
export class HoursAxis {
  constructor(
    readonly left: number,
    readonly right: number,
    readonly darkH: number,
  ) {}

  /** The dark takes an eighth of the paper. */
  get end(): number {
    return this.left + (this.right - this.left) * 0.88
  }

  x(hour: number): number {
    return this.left + (this.darkH > 0 ? hour / this.darkH : 0) * (this.end - this.left)
  }

  marks(): number[] {
    return ticks(this.darkH, 6).filter((h) => h <= this.darkH * 1.0001)
  }
}
