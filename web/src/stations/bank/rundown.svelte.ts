import { api } from '../../api/client'
import type { RunDownAnswer } from '../../api/client'
import { session } from '../../app/session.svelte'

/** The load the bank is run down under: constant watts or amperes; with neither full load. Nothing of it is kept. */
class RunDown {
  watts = $state<number | null>(null)
  amps = $state<number | null>(null)
  answer = $state.raw<RunDownAnswer | null>(null)

  #busy = false
  #again = false

  /** While an answer is on its way the newest load waits. */
  async ask() {
    this.#again = true
    if (this.#busy) return
    this.#busy = true
    while (this.#again) {
      this.#again = false
      const design = session.worked
      if (!design) break
      try {
        this.answer = await api.runDown(design, session.bankIndex, this.watts ?? undefined, this.amps ?? undefined)
      } catch {
        this.answer = null
      }
    }
    this.#busy = false
  }

  put(load: { watts?: number | null; amps?: number | null }) {
    this.watts = load.watts ?? null
    this.amps = load.amps ?? null
    void this.ask()
  }

  reset() {
    this.watts = this.amps = null
    this.answer = null
  }
}

export const rundown = new RunDown()
