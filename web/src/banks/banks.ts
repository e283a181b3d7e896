import type { Bank, Change, Design, Run, Schemas } from '../api/client'
import { newId } from '../stations/loads/loads'

export type Join = Schemas['Join']
export type JoinKind = Join['kind']

/** System voltages a bank may be begun with. */
export const volts = [12, 16, 24, 36, 48]

export const joinKinds: { value: JoinKind; text: string }[] = [
  { value: 'dc-dc', text: 'DC–DC charger' },
  { value: 'converter', text: 'converter' },
  { value: 'isolator', text: 'isolator' },
  { value: 'relay', text: 'relay' },
  { value: 'straight', text: 'straight through' },
]

/** Whether it makes its volts anew, and so has an efficiency. */
export const converts = (kind: JoinKind) => kind === 'dc-dc' || kind === 'converter'

export const nameOf = (bank: Bank) => bank.name || bank.id

const blankInverter: Bank['inverters'][number] = {
  id: 'i1',
  item: null,
  stack: 1,
  onH: null,
  feeds: null,
  charger: null,
  chargerWindows: null,
}

const blankWiring: Bank['wiring'] = {
  style: null,
  takeoffs: null,
  jumper: null,
  link: null,
  lead: null,
  jumpers: [],
  links: [],
  leads: [],
}

/** A name that no bank has yet. */
function freeName(design: Design, wanted: string): string {
  const taken = new Set(design.banks.map((b) => b.name))
  let [name, n] = [wanted, 2]
  while (taken.has(name)) name = `${wanted} ${n++}`
  return name.slice(0, 80)
}

/** An empty bank; its volts as advised, or chosen. */
export function newBank(design: Design, systemV: number | null): Bank {
  return {
    id: newId('b'),
    name: freeName(design, systemV === null ? 'Another bank' : `${systemV} V bank`),
    systemV,
    chemistry: null,
    demand: { by: 'loads', loads: [], figure: null, states: null },
    inverters: [blankInverter],
    unit: null,
    bms: null,
    series: null,
    parallel: null,
    positions: [],
    wiring: blankWiring,
    runs: [],
    sources: [],
    cards: [],
    changed: null,
    compartments: [],
    space: null,
  }
}

/** The same bank once more, under a name of its own; what joins the first does not join the second. */
export function copyOf(design: Design, index: number): Bank {
  const bank = design.banks[index]
  return {
    ...structuredClone(bank),
    id: newId('b'),
    name: freeName(design, `${nameOf(bank)}, copy`),
    runs: bank.runs.filter((r) => !r.id.startsWith('join-')),
  }
}

/** Without a bank, and without what joined it. */
export function without(design: Design, index: number): Change[] {
  const id = design.banks[index].id
  const gone = new Set(design.joins.filter((j) => j.from === id || j.to === id).map((j) => `join-${j.id}`))
  return [
    {
      path: '/banks',
      value: design.banks
        .filter((_, i) => i !== index)
        .map((b) => (b.runs.some((r) => gone.has(r.id)) ? { ...b, runs: b.runs.filter((r) => !gone.has(r.id)) } : b)),
    },
    { path: '/joins', value: design.joins.filter((j) => j.from !== id && j.to !== id) },
  ]
}

/** A bank one place up (−1) or down (+1). */
export function moved(design: Design, index: number, by: number): Change[] {
  const banks = [...design.banks]
  const [bank] = banks.splice(index, 1)
  banks.splice(index + by, 0, bank)
  return [{ path: '/banks', value: banks }]
}

/** Runs go by the names of what they serve; those that shared one keep their own. */
function runsWithout(runs: Run[], ids: Set<string>): Run[] {
  return runs
    .filter((r) => !ids.has(r.id))
    .map((r) => (r.sharedWith && ids.has(r.sharedWith) ? { ...r, sharedWith: null } : r))
}

/** A load to another bank, with what was chosen of its cable; AC loads take an inverter along where there is none. */
export function loadTo(design: Design, from: number, load: number, to: number): Change[] {
  const [here, there] = [design.banks[from], design.banks[to]]
  const one = here.demand.loads[load]
  const id = there.demand.loads.some((l) => l.id === one.id) ? newId() : one.id
  const [old, next] = [`load-${one.id}`, `load-${id}`]
  const runs = here.runs.filter((r) => r.id === old).map((r) => ({ ...r, id: next, sharedWith: null }))
  return [
    { path: `/banks/${from}/demand/loads`, value: here.demand.loads.filter((_, i) => i !== load) },
    { path: `/banks/${from}/runs`, value: runsWithout(here.runs, new Set([old])) },
    // A tap was a place in the other bank.
    { path: `/banks/${to}/demand/loads`, value: [...there.demand.loads, { ...one, id, tap: null }] },
    { path: `/banks/${to}/runs`, value: [...there.runs.filter((r) => r.id !== next), ...runs] },
    ...(one.kind === 'ac' && there.inverters.length === 0
      ? [{ path: `/banks/${to}/inverters`, value: [blankInverter] }]
      : []),
  ]
}

/** A source to another bank, with its array's cable and its own. */
export function sourceTo(design: Design, from: number, source: number, to: number): Change[] {
  const [here, there] = [design.banks[from], design.banks[to]]
  const one = here.sources[source]
  const id = there.sources.some((s) => s.id === one.id) ? newId('s') : one.id
  const names = new Map([
    [`source-${one.id}`, `source-${id}`],
    [`array-${one.id}`, `array-${id}`],
  ])
  const runs = here.runs.filter((r) => names.has(r.id)).map((r) => ({ ...r, id: names.get(r.id)!, sharedWith: null }))
  const taken = new Set(names.values())
  return [
    { path: `/banks/${from}/sources`, value: here.sources.filter((_, i) => i !== source) },
    { path: `/banks/${from}/runs`, value: runsWithout(here.runs, new Set(names.keys())) },
    { path: `/banks/${to}/sources`, value: [...there.sources, { ...one, id }] },
    { path: `/banks/${to}/runs`, value: [...there.runs.filter((r) => !taken.has(r.id)), ...runs] },
  ]
}

export function newJoin(from: string, to: string): Join {
  return { id: newId('j'), from, to, kind: 'dc-dc', amps: 20, efficiency: null, hours: null, idleW: null }
}

/** Ampere-hours of each unit that stands in a bank, string by string: how wide it is drawn. */
export function ahOfUnits(bank: Bank, series: number, parallel: number, usualAh: number): number[][] {
  const own = new Map(
    bank.positions.map((p) => [`${p.string} ${p.unit}`, (p.item?.ah ?? usualAh) * (p.health ?? 1)] as const),
  )
  return Array.from({ length: parallel }, (_, s) =>
    Array.from({ length: series }, (_, u) => own.get(`${s + 1} ${u + 1}`) ?? usualAh),
  )
}
