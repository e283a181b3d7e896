/** Geometry of the drawings: lengths on paper only, never a figure that is printed. */

/** Diameter of a solid round of this cross-section [mm]. */
export function diameterMm(areaMm2: number): number {
  return 2 * Math.sqrt(areaMm2 / Math.PI)
}

/** Largest step of 1, 2, 5 × 10ⁿ that is not above a limit. */
export function step125(limit: number): number {
  if (!(limit > 0)) return 1
  const power = 10 ** Math.floor(Math.log10(limit))
  const lead = limit / power
  return (lead >= 5 ? 5 : lead >= 2 ? 2 : 1) * power
}

/** Smallest step of 1, 2, 5 × 10ⁿ that is not below a limit. */
export function stepUp125(limit: number): number {
  const down = step125(limit)
  if (down >= limit * (1 - 1e-9)) return down
  const lead = down / 10 ** Math.floor(Math.log10(down) + 1e-9)
  return lead < 1.5 ? down * 2 : lead < 3 ? down * 2.5 : down * 2
}

/** Marks of an axis from 0 to at least `most`, about `count` of them. */
export function ticks(most: number, count: number): number[] {
  const step = stepUp125(most / count)
  const marks: number[] = []
  for (let i = 0; i * step <= most * (1 + 1e-9); i++) marks.push(i * step)
  return marks
}

/** The bright core of a conductor: the share of its ampacity in use, by area. */
export function coreOf(thickness: number, share: number): number {
  return thickness * Math.sqrt(Math.max(0, Math.min(1, share)))
}

/** Text cut to a number of characters, for places that cannot wrap. */
export function cut(text: string, most: number): string {
  return text.length <= most ? text : text.slice(0, most - 1).trimEnd() + '…'
}
