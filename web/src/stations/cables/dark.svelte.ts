import { api } from '../../api/client'
import type { Dark } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'

/** What goes dark: which thing is opened. Nothing of it is kept. */
class GoesDark {
  /** Why there is no answer, where nobody gave one. */
  away = $state<string | null>(null)
  answer = $state.raw<Dark | null>(null)
  picked = $state<string | null>(null)
  #ask = newest(async () => {
    this.answer = await orBefore(
      session.worked,
      this.answer,
      (design) => api.dark(design, session.bankIndex),
      (away) => (this.away = away),
    )
    if (this.picked && !this.answer?.elements.some((e) => e.id === this.picked)) this.picked = null
  })
  ask() {
    void this.#ask()
  }
  get element() {
    return this.answer?.elements.find((e) => e.id === this.picked) ?? null
  }
}

export const dark = new GoesDark()
