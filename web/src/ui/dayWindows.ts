/** Times of a load: pairs [start, end) in hours; an end before the start wraps midnight. What comes out is always acceptable, or null. */
export type Windows = number[][]

const NOISE = 1e-6
/** So far from where it is wanted a window may still stop beside another [h]. */
const REACH = 3

export function lengthOf([from, to]: number[]): number {
  return to > from ? to - from : 24 - from + to
}

function day(hour: number): number {
  const h = ((hour % 24) + 24) % 24
  return h > 24 - NOISE ? 0 : Number(h.toFixed(9))
}

function end(hour: number): number {
  const h = day(hour)
  return h < NOISE ? 24 : h
}

/** The stretches of the day a window covers: two where it wraps. */
export function stretches([from, to]: number[]): number[][] {
  return to > from
    ? [[from, to]]
    : to < NOISE
      ? [[from, 24]]
      : [
          [from, 24],
          [0, to],
        ]
}

function overlaps(a: number[], b: number[]): boolean {
  return stretches(a).some(([p, q]) => stretches(b).some(([r, s]) => p < s - NOISE && r < q - NOISE))
}

function placed(windows: Windows, index: number, window: number[]): Windows | null {
  if (windows.some((w, i) => i !== index && overlaps(w, window))) return null
  return windows.map((w, i) => (i === index ? window : w))
}

/** A window put at another start; where another one is in the way it stops beside it. */
export function moved(windows: Windows, index: number, start: number): Windows | null {
  const length = lengthOf(windows[index])
  const at = (from: number) => placed(windows, index, [day(from), end(day(from) + length)])
  const beside = windows
    .filter((_, i) => i !== index)
    .flatMap((w) => [w[0] - length, w[1]])
    .map((from) => ({ from, off: Math.abs(((from - start + 36) % 24) - 12) }))
    .filter((c) => c.off <= length + REACH)
    .sort((a, b) => a.off - b.off)
  return at(start) ?? beside.map((c) => at(c.from)).find((w) => w) ?? null
}

/** One end of a window put elsewhere; it keeps a minute at least. */
export function resized(windows: Windows, index: number, edge: 'start' | 'end', hour: number): Windows | null {
  const [from, to] = windows[index]
  const window = edge === 'start' ? [day(hour), to] : [from, end(hour)]
  const length = lengthOf(window)
  // Dragged through itself it would become nearly the whole day.
  const change = Math.abs(length - lengthOf(windows[index]))
  if (length < 1 / 60 - NOISE || change > 12) return null
  return placed(windows, index, window)
}

export function added(windows: Windows, from: number, to: number): Windows | null {
  if (Math.abs(to - from) < 1 / 60 - NOISE) return null
  const window = [day(Math.min(from, to)), end(Math.max(from, to))]
  return windows.some((w) => overlaps(w, window)) ? null : [...windows, window].sort((a, b) => a[0] - b[0])
}
