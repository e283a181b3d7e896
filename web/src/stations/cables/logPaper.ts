/** Paper of current against time, both on their logarithms in 1, 2, 5: lengths only. */

export const LEAST_S = 0.0001
export const MOST_S = 1200

export class LogPaper {
  readonly left = 64
  readonly right: number
  readonly top = 14
  readonly bottom: number
  constructor(
    readonly width: number,
    readonly height: number,
    readonly fromA: number,
    readonly toA: number,
    below: number,
  ) {
    this.right = width - 26
    this.bottom = height - below
  }

  x(amps: number): number {
    const share = Math.log(amps / this.fromA) / Math.log(this.toA / this.fromA)
    return this.left + Math.max(0, Math.min(1, share)) * (this.right - this.left)
  }

  ampsAt(x: number): number {
    const share = Math.max(0, Math.min(1, (x - this.left) / (this.right - this.left)))
    return this.fromA * (this.toA / this.fromA) ** share
  }

  y(seconds: number | null): number {
    if (seconds === null) return this.top
    const clamped = Math.max(LEAST_S, Math.min(MOST_S, seconds))
    return this.bottom - (Math.log(clamped / LEAST_S) / Math.log(MOST_S / LEAST_S)) * (this.bottom - this.top)
  }

  /** A path through points. */
  line(points: { amps: number; s: number | null }[]): string {
    return points.map((p, i) => `${i === 0 ? 'M' : 'L'}${this.x(p.amps).toFixed(1)} ${this.y(p.s).toFixed(1)}`).join('')
  }

  /** Between a lower and an upper edge. */
  area(low: { amps: number; s: number | null }[], high: { amps: number; s: number | null }[]): string {
    return `${this.line(low)}${this.line(high.toReversed()).replace('M', 'L')}Z`
  }
}

/** Marks at 1, 2 and 5 of each decade between two values. */
export function marks125(from: number, to: number): number[] {
  const marks: number[] = []
  for (let p = Math.floor(Math.log10(from)); 10 ** p <= to; p++)
    for (const lead of [1, 2, 5]) {
      const value = Number((lead * 10 ** p).toPrecision(3))
      if (value >= from * (1 - 1e-9) && value <= to * (1 + 1e-9)) marks.push(value)
    }
  return marks
}

/** Times that are written at the axis. */
export const TIMES: [number, string][] = [
  [600, '10 min'],
  [60, '1 min'],
  [10, '10 s'],
  [1, '1 s'],
  [0.1, '0.1 s'],
  [0.01, '10 ms'],
  [0.001, '1 ms'],
  [0.0001, '0.1 ms'],
]

/** Amperes at the axis, in short. */
export function ampsMark(amps: number): string {
  return amps >= 1000 ? `${amps / 1000}` : `${amps}`
}
