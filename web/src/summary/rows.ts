import type { Schedules } from '../api/client'

type Cable = Schedules['cables'][number]

/** A run as one line: its ends, and the pieces of either pole. */
export interface RunLine {
  label: string
  from: string
  to: string
  size: string
  plus: Cable[]
  minus: Cable[]
  lug: string
}

/** The cut list with both poles of a run in one line; pieces of the main run follow each other. */
export function perRun(cables: Cable[]): RunLine[] {
  const lines = new Map<string, RunLine>()
  for (const c of cables) {
    const main = c.label.startsWith('M')
    const link = c.label.startsWith('L') || c.label.startsWith('B')
    const key = main ? 'M' : link ? c.label[0] + c.size + c.lengthM : c.label.replace(/[+−]$/, '')
    const line = lines.get(key)
    if (!line) {
      lines.set(key, {
        label: main ? 'M' : c.label.replace(/[+−]$/, ''),
        from: c.from,
        to: c.to,
        size: c.size,
        plus: c.pole === 'minus' ? [] : [c],
        minus: c.pole === 'minus' ? [c] : [],
        lug: c.fromLug,
      })
      continue
    }
    if (c.pole === 'minus') line.minus.push(c)
    else {
      line.plus.push(c)
      line.to = c.to
    }
  }
  return [...lines.values()]
}
