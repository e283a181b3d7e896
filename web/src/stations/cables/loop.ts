import type { Evaluation } from '../../api/client'
import type { RunInHand } from './hand.svelte'

type Bank = Evaluation['banks'][number]

/** A column of the elevation: from where to where [0 to 1 of its part], its amperes, and the pointers of those that have a working. */
export interface Column {
  key: string
  name: string
  load: number
  /** What the fuse lets through here for good; 0: no fuse. */
  fuse: number
  copper: number
  loadPtr: string | null
  fusePtr: string | null
  copperPtr: string | null
}

/** A part on a pole: at so many metres of cable, with the volts lost up to it and past it, at full load and at the worst start. */
export interface Part {
  kind: 'post' | 'fuse' | 'switch' | 'shunt' | 'bus' | 'inverter' | 'begin' | 'end'
  name: string
  atM: number
  before: number
  lost: number
  surgeBefore: number | null
  surge: number | null
}

/** Strings that get a column of their own each; more are drawn as one. */
const MOST_COLUMNS = 6

/** The conductors inside the bank, from the farthest string to the post. */
export function bankColumns(e: Bank, narrow: boolean): Column[] {
  const n = e.network
  if (!n || n.strings.shares.length < 2) return []
  if (n.wiring.style === 'bus-bars')
    return [
      {
        key: 'leads',
        name: 'leads',
        load: n.strings.worstA,
        fuse: n.links.worstA,
        copper: n.copper.lead.ampacityA,
        loadPtr: '/network/strings/worstA',
        fusePtr: null,
        copperPtr: '/network/copper/lead/ampacityA',
      },
    ]
  if (narrow || n.strings.shares.length > MOST_COLUMNS || n.wiring.style === 'rails')
    return [
      {
        key: 'links',
        name: 'links',
        load: Math.max(0, ...n.links.positiveA, ...n.links.negativeA),
        fuse: n.links.worstA,
        copper: n.copper.link.ampacityA,
        loadPtr: null,
        fusePtr: null,
        copperPtr: '/network/copper/link/ampacityA',
      },
    ]
  return n.links.positiveA
    .map((load, i) => {
      const own = n.copper.placed.find((c) => c.kind === 'link' && c.rail === 'positive' && c.after === i + 1)
      const usual = !own || own.size === n.copper.link.size
      return {
        key: `link ${i}`,
        name: `${letter(i + 1)} to ${letter(i)}`,
        load,
        fuse: n.held.positiveA[i],
        copper: usual ? n.copper.link.ampacityA : own.ampacityA,
        loadPtr: `/network/links/positiveA/${i}`,
        fusePtr: `/network/held/positiveA/${i}`,
        copperPtr: usual ? '/network/copper/link/ampacityA' : null,
      }
    })
    .reverse()
}

const letter = (i: number) => String.fromCharCode(65 + i)

export function runColumn(view: RunInHand): Column {
  const r = view.run
  return {
    key: 'run',
    name: view.name,
    load: r.designA,
    fuse: r.fuse.ratingA ?? 0,
    copper: r.carries.ampacityA ?? 0,
    loadPtr: `${view.ptr}/designA`,
    fusePtr: `${view.ptr}/fuse/ratingA`,
    copperPtr: `${view.ptr}/carries/ampacityA`,
  }
}

/** Both poles of the run in hand with everything that sits on them. */
export function poles(e: Bank, view: RunInHand): { plus: Part[]; minus: Part[] } {
  const { circuit } = view
  const part = (p: NonNullable<Bank['bus']>['plus'][number]): Part => ({
    kind: p.part,
    name: p.part === 'begin' ? (circuit?.from ?? '') : p.part === 'end' ? (circuit?.to ?? '') : p.part,
    atM: p.atM,
    before: p.lostBeforeV,
    lost: p.lostV,
    surgeBefore: p.surgeBeforeV,
    surge: p.surgeV,
  })
  const of = view.main ? e.bus : circuit
  return of ? { plus: of.plus.map(part), minus: of.minus.map(part) } : { plus: [], minus: [] }
}
