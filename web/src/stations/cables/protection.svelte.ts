import { api } from '../../api/client'
import type { ProtectionChart } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'
import { hand } from './hand.svelte'

/** The chart of the run in hand, and the short that is looked at. Nothing of it is kept. */
class Protection {
  /** Why there is no answer, where nobody gave one. */
  away = $state<string | null>(null)
  answer = $state.raw<ProtectionChart | null>(null)
  /** The short by its amperes, or by how far along the run it lies; with neither halfway along. */
  #amps: number | null = null
  #metres: number | null = null
  #run = ''

  #ask = newest(async () => {
    const run = hand.id
    const answer = await orBefore(
      session.worked,
      this.answer,
      (design) => api.protection(design, session.bankIndex, run, this.#amps ?? undefined, this.#metres ?? undefined),
      (away) => (this.away = away),
    )
    if (run !== hand.id) return
    this.answer = answer
    const equation = answer?.probe?.working[0]
    if (equation && (session.presented?.pointer === equation.pointer || !session.selected)) session.present(equation)
  })

  /** Asks anew: the design, or the run in hand, has changed. */
  ask() {
    if (this.#run !== hand.id) {
      this.#run = hand.id
      this.#amps = this.#metres = null
    }
    void this.#ask()
  }

  toAmps(amps: number) {
    this.#amps = amps
    this.#metres = null
    void this.#ask()
  }

  toMetres(metres: number) {
    this.#amps = null
    this.#metres = metres
    void this.#ask()
  }

  /** The working of what the copper stands. */
  show() {
    const equation = this.answer?.probe?.working[0]
    if (equation) session.present(equation, this.answer!.probe!.working)
  }
}

export const protection = new Protection()
