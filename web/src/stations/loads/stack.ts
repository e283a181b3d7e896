import type { BankEvaluation, Load } from '../../api/client'
import { stretches } from '../../ui/dayWindows'

/** A load, or the many small ones together, as a layer of the day's power. Heights are the running watts of the Evaluation. */
export interface Layer {
  key: string
  name: string
  direct: boolean
  /** From, to [h], bottom and top [W]. */
  parts: { from: number; to: number; bottom: number; top: number }[]
}

const MOST = 8

/** The day's power in layers: what is always on at the bottom, what runs briefly on top, what never passes the inverter above all. */
export function layers(
  loads: Pick<Load, 'id' | 'name' | 'kind' | 'season' | 'windows' | 'hours'>[],
  rows: NonNullable<BankEvaluation['loads']>['rows'],
  season: string,
): Layer[] {
  const on = loads
    .map((load, i) => ({ load, row: rows[i], id: load.id }))
    .filter(
      ({ load, row }) =>
        row &&
        row.id === load.id &&
        row.runningW > 0 &&
        (load.season === 'both' || season === 'both' || load.season === season),
    )
    .map(({ load, row }) => ({
      key: load.id,
      name: load.name || 'New load',
      direct: load.kind !== 'ac',
      watts: row.runningW,
      spans: load.windows ? load.windows.flatMap(stretches) : load.hours ? [[0, 24]] : [],
      length: row.hoursOn,
    }))
    .filter((l) => l.spans.length > 0)
  const large = new Set([...on].sort((a, b) => b.watts - a.watts).slice(0, on.length > MOST ? MOST - 1 : MOST))
  const order = on.sort(
    (a, b) => Number(a.direct) - Number(b.direct) || Number(large.has(a)) - Number(large.has(b)) || b.length - a.length,
  )

  const cuts = [...new Set([0, 24, ...on.flatMap((l) => l.spans.flat())])].sort((a, b) => a - b)
  const floor = new Float64Array(cuts.length)
  const result: Layer[] = []
  for (const direct of [false, true]) {
    const small = order.filter((l) => l.direct === direct && !large.has(l))
    if (small.length > 0)
      result.push(stacked(`small-${direct}`, `${small.length} small loads`, direct, small, cuts, floor))
    for (const l of order.filter((l) => l.direct === direct && large.has(l)))
      result.push(stacked(l.key, l.name, direct, [l], cuts, floor))
  }
  return result
}

function stacked(
  key: string,
  name: string,
  direct: boolean,
  loads: { watts: number; spans: number[][] }[],
  cuts: number[],
  floor: Float64Array,
): Layer {
  const parts: Layer['parts'] = []
  for (let i = 0; i + 1 < cuts.length; i++) {
    let watts = 0
    for (const l of loads) if (l.spans.some(([from, to]) => from <= cuts[i] && cuts[i] < to)) watts += l.watts
    if (watts === 0) continue
    const bottom = floor[i]
    const top = bottom + watts
    floor[i] = top
    const last = parts.at(-1)
    if (last && last.to === cuts[i] && last.bottom === bottom && last.top === top) last.to = cuts[i + 1]
    else parts.push({ from: cuts[i], to: cuts[i + 1], bottom, top })
  }
  return { key, name, direct, parts }
}
