import { ticks } from '../../drawing/geometry'

/** The paper of a run-down: hours until dark across, with room for the dark that follows; one quantity up. */
export class RunDownPaper {
  readonly left = 56
  readonly top = 22

  constructor(
    readonly width: number,
    readonly height: number,
    readonly darkH: number,
    readonly most: number,
  ) {}

  get right(): number {
    return this.width - 6
  }
  get bottom(): number {
    return this.height - 19
  }

  /** The dark takes an eighth of the paper. */
  get end(): number {
    return this.left + (this.right - this.left) * 0.88
  }

  x(hour: number): number {
    return this.left + (this.darkH > 0 ? hour / this.darkH : 0) * (this.end - this.left)
  }

  y(value: number): number {
    return this.bottom - (value / this.most) * (this.bottom - this.top)
  }

  /** A line through what was at each of the hours. */
  line(hours: number[], values: number[]): string {
    return values.map((v, i) => `${i === 0 ? 'M' : 'L'}${this.x(hours[i])} ${this.y(v)}`).join('')
  }

  /** The same from its end to its beginning, to close an area. */
  back(hours: number[], values: number[]): string {
    return values
      .map((v, i) => `L${this.x(hours[i])} ${this.y(v)}`)
      .reverse()
      .join('')
  }

  hours(): number[] {
    return ticks(this.darkH, 6).filter((h) => h <= this.darkH * 1.0001)
  }

  values(): number[] {
    return ticks(this.most, 4).filter((t) => t <= this.most)
  }
}
