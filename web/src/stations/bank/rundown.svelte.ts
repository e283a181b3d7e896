import { api } from '../../api/client'
import type { RunDownAnswer } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orNull } from '../../ui/newest'

/** The load the bank is run down under: constant watts or amperes; with neither full load. Nothing of it is kept. */
class RunDown {
  watts = $state<number | null>(null)
  amps = $state<number | null>(null)
  answer = $state.raw<RunDownAnswer | null>(null)

  ask = newest(async () => {
    this.answer = await orNull(session.worked, (design) =>
      api.runDown(design, session.bankIndex, this.watts ?? undefined, this.amps ?? undefined),
    )
  })

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
