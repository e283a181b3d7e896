import { api } from '../../api/client'
import type { RunDownAnswer, RunDownAt } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'

/** The load the bank is run down under: constant watts or amperes; with neither full load. Nothing of it is kept. */
class RunDown {
  watts = $state<number | null>(null)
  amps = $state<number | null>(null)
  answer = $state.raw<RunDownAnswer | null>(null)
  /** The same bank at other loads; those of a moment ago until the run is there. */
  others = $state.raw<RunDownAt[]>([])
  /** The figure whose working is open. */
  about = $state<'deliveredWh' | 'strandedWh' | 'darkH'>('strandedWh')

  ask = newest(async () => {
    this.answer = await orBefore(session.worked, this.answer, (design) =>
      api.runDown(design, session.bankIndex, this.watts ?? undefined, this.amps ?? undefined),
    )
    this.#soon()
    // What is open goes with the load; another figure of the bench stays open.
    if (session.presented || !session.selected) this.show()
  })

  #askOthers = newest(async () => {
    this.others =
      (await orBefore(session.worked, this.others, (design) =>
        api.runDownOthers(design, session.bankIndex, this.watts ?? undefined, this.amps ?? undefined),
      )) ?? []
  })

  /** While the load is still being moved only the run is asked for. */
  #timer: ReturnType<typeof setTimeout> | undefined
  #soon() {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => void this.#askOthers(), 120)
  }

  /** Opens the working of a figure of the run. */
  show(about = this.about) {
    this.about = about
    const equation = this.answer?.working.find((e) => e.pointer === `/rundown/${about}`)
    if (equation) session.present(equation, this.answer!.working)
  }

  put(load: { watts?: number | null; amps?: number | null }) {
    this.watts = load.watts ?? null
    this.amps = load.amps ?? null
    void this.ask()
  }

  reset() {
    this.watts = this.amps = null
    this.answer = null
    this.others = []
  }
}

export const rundown = new RunDown()
