import type { Schemas } from '../../api/client'
import { session } from '../../app/session.svelte'
import { saying } from './positions'

export type StandingUnit = Schemas['StandingUnit']
export type Compartment = Schemas['Compartment']

/** Where the bank stands, as it is looked at: which compartment, and which unit is in hand. */
class StandBench {
  #room = $state(0)
  unit = $state.raw<{ string: number; unit: number } | null>(null)

  get result() {
    return session.result?.stands ?? null
  }
  get rooms() {
    return session.bank!.compartments
  }
  get room() {
    return Math.min(this.#room, Math.max(0, this.rooms.length - 1))
  }
  get document(): Compartment | null {
    return this.rooms[this.room] ?? null
  }
  get here() {
    return this.result?.compartments[this.room] ?? null
  }
  get inHand(): StandingUnit | null {
    const at = this.unit
    return (at && this.here?.units.find((u) => u.string === at.string && u.unit === at.unit)) ?? null
  }

  pick(room: number) {
    this.#room = room
    this.unit = null
  }

  /** A compartment that takes the units as they are, or of the size of a van's locker where nothing is known of them. */
  add() {
    const needs = this.result?.needs[0]
    const up = (mm: number) => Math.ceil(mm / 10) * 10
    const taken = new Set(this.rooms.map((c) => c.id))
    let n = this.rooms.length + 1
    while (taken.has(`c${n}`)) n++
    const compartment: Compartment = {
      id: `c${n}`,
      name: n === 1 ? 'battery compartment' : `compartment ${n}`,
      lengthMm: needs ? up(needs.lengthMm) : 1200,
      widthMm: needs ? up(needs.widthMm) : 400,
      heightMm: needs ? up(needs.heightMm) : 300,
      lid: 'wood',
      airMm: null,
      flatBars: false,
      straps: null,
      forwardM: null,
      rightM: null,
    }
    session.edit({ path: '~/compartments/-', value: compartment }, true)
    this.pick(this.rooms.length)
  }

  /** Units that stood in it go back into their turn. */
  remove() {
    const id = this.document?.id
    if (!id) return
    const bank = session.bank!
    const gone = bank.positions.filter((p) => p.stand?.compartment === id)
    session.edit(
      [
        { path: '~/compartments', value: bank.compartments.filter((c) => c.id !== id) },
        { path: '~/positions', value: saying(bank.positions, gone, { stand: null }) },
      ],
      true,
    )
    this.pick(0)
  }

  #standOf(u: StandingUnit): Schemas['UnitStand'] {
    return { compartment: this.document?.id ?? '', xMm: u.xMm, yMm: u.yMm, turn: u.turn, lying: u.lying }
  }

  /** Sets a unit down: moved, turned, laid, or in another compartment. The others stay where they are seen. */
  put(u: StandingUnit, by: Partial<Schemas['UnitStand']>, commit: boolean) {
    let positions = session.bank!.positions
    for (const other of this.here?.units ?? [])
      if (!other.put && (other.string !== u.string || other.unit !== u.unit))
        positions = saying(positions, [other], { stand: this.#standOf(other) })
    const stand = { ...this.#standOf(u), ...by }
    session.edit({ path: '~/positions', value: saying(positions, [u], { stand }) }, commit)
  }

  /** A quarter turn about its corner. */
  turn(u: StandingUnit) {
    this.put(u, { turn: (u.turn + 90) % 360 }, true)
  }

  /** Back into its turn beside the others. */
  free(units: StandingUnit[]) {
    session.edit({ path: '~/positions', value: saying(session.bank!.positions, units, { stand: null }) }, true)
  }

  reset() {
    this.pick(0)
  }
}

export const stand = new StandBench()
