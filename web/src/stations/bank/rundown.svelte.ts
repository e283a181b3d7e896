import { api } from '../../api/client'
import type { RunDownAnswer } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orNull } from '../../ui/newest'

/** The load the bank is run down under: constant watts or amperes; with neither full load. Nothing of it is kept. */
class RunDown {
  watts = $state<number | null>(null)
  amps = $state<number | null>(null)
  answer = $state.raw<RunDownAnswer | null>(null)
  /** The figure whose working is open. */
  about = $state<'deliveredWh' | 'strandedWh' | 'darkH'>('strandedWh')

  ask = newest(async () => {
    this.answer = await orNull(session.worked, (design) =>
      api.runDown(design, session.bankIndex, this.watts ?? undefined, this.amps ?? undefined),
    )
    // What is open goes with the load; another figure of the bench stays open.
    if (session.presented || !session.selected) this.show()
  })

  /** Opens the working of a figure of the run. */
  show(about = this.about) {
    this.about = about
    const equation = this.answer?.working.find((e) => e.pointer === `/rundown/${about}`)
    if (equation) session.present(equation)
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
