import type { Change, Circuit, Run, RunResult } from '../../api/client'
import { session } from '../../app/session.svelte'
import { say } from '../../ui/quantity'

/** A run as the station shows it: its results, where they stand in the Evaluation, and the document's run where it has one. */
export interface RunInHand {
  id: string
  name: string
  main: boolean
  run: RunResult
  ptr: string
  /** Pointer of what the fuse must bear and break. */
  fusePtr: string
  circuit: Circuit | null
  doc: Run
  /** Its place in the document; −1 as long as everything of it is as advised. */
  index: number
  fits: boolean
}

export type RunDialog = 'sizes' | 'schedules' | 'add' | 'tables' | null

/** A run of which nothing is chosen yet. */
export function blank(id: string): Run {
  return {
    id,
    from: id === 'main' ? 'bank' : '',
    to: id === 'main' ? 'inverter' : '',
    lengthM: null,
    size: null,
    parallel: null,
    conductorLengthsM: [],
    place: null,
    ambientC: null,
    bundled: null,
    practice: null,
    insulation: null,
    dropLimit: null,
    amps: null,
    fuse: { class: null, ratingA: null, distanceM: null, absent: false },
    switch: null,
    busM: null,
    busRatingA: null,
    shuntM: null,
    preCharge: false,
    sharedWith: null,
    feeds: null,
    bypassesShunt: false,
    absent: false,
  }
}

export function indexOf(id: string): number {
  return session.bank!.runs.findIndex((run) => run.id === id)
}

export function docOf(id: string): Run {
  const index = indexOf(id)
  return index < 0 ? blank(id) : session.bank!.runs[index]
}

/** Pointer of a run in the document, where it is or where it will be. */
export function pathOf(id: string): string {
  const index = indexOf(id)
  return `/runs/${index < 0 ? session.bank!.runs.length : index}`
}

/** What has to be added before a field of the run can be changed. */
export function ensure(id: string): Change[] {
  return indexOf(id) < 0 ? [{ path: '~/runs/-', value: blank(id) }] : []
}

/** Changes a run; it is added to the document when it was advised in everything. */
export function put(id: string, change: Partial<Run>, commit = true) {
  const index = indexOf(id)
  const value = { ...docOf(id), ...change }
  session.edit({ path: index < 0 ? '~/runs/-' : `~/runs/${index}`, value }, commit)
}

class Hand {
  /** Id of the run that is looked at. */
  #id = $state('main')
  dialog = $state<RunDialog>(null)
  /** How the runs are looked at. */
  look = $state<'elevation' | 'protection' | 'dark'>('elevation')

  get id() {
    return this.#id
  }

  /** Another run: the working is of it as well. */
  set id(id: string) {
    if (id === this.#id) return
    this.#id = id
    this.#open()
  }

  /** Takes a run in hand and opens the working of its cable. */
  take(id: string) {
    this.#id = id
    this.#open()
  }

  /** The main run again, without touching the working. */
  reset() {
    this.#id = 'main'
    this.dialog = null
  }

  #open() {
    const view = this.view
    if (view?.run.cable.areaMm2) session.select(`${view.ptr}/cable/areaMm2`)
  }

  get view(): RunInHand | null {
    return this.of(this.id) ?? this.of('main')
  }

  of(id: string): RunInHand | null {
    const e = session.result
    if (!e || !session.bank) return null
    if (id === 'main') {
      if (!e.mainRun) return null
      return {
        id,
        name: 'Main run',
        main: true,
        run: e.mainRun,
        ptr: '/mainRun',
        fusePtr: '/protection',
        circuit: null,
        doc: docOf(id),
        index: indexOf(id),
        fits: e.protection?.fits ?? true,
      }
    }
    const n = e.circuits.findIndex((c) => c.id === id)
    if (n < 0) return null
    const circuit = e.circuits[n]
    return {
      id,
      name: circuit.name,
      main: false,
      run: circuit.run,
      ptr: `/circuits/${n}/run`,
      fusePtr: `/circuits/${n}/fuse`,
      circuit,
      doc: docOf(id),
      index: indexOf(id),
      fits: circuit.fuse.fits,
    }
  }
}

export const hand = new Hand()

/** Metres said to the hand's breadth, as one cuts. */
export function roundM(metres: number): number {
  const step = session.units === 'imperial' ? 0.03048 : 0.05
  return Number(Math.max(step, Math.round(metres / step) * step).toFixed(3))
}

export function metres(value: number): string {
  return say(value, 'm', session.units)
}
