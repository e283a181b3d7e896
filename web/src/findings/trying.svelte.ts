import { api } from '../api/client'
import type { Evaluation } from '../api/client'
import { session } from '../app/session.svelte'

type Found = Evaluation['findings']
type Finding = Found[number]

const PAUSE_MS = 200

/**
 * The mends of what is found, tried again after each change; those of an older evaluation stay where they are and wait. Made by a
 * component.
 */
export class Trying {
  #tried = $state.raw<{ of: Evaluation; findings: Found } | null>(null)
  /** What was tried on another state of the design is not pressed on this one: it waits, and goes if it is offered again. */
  #wish: { finding: Finding; label: string } | null = null

  constructor() {
    $effect(() => {
      const [evaluation, design] = [session.evaluation, session.worked]
      if (!evaluation || !design) return
      const asked = new AbortController()
      const timer = setTimeout(async () => {
        try {
          const findings = await api.mends(design, asked.signal)
          if (session.evaluation !== evaluation) return
          this.#tried = { of: evaluation, findings }
          const wished = this.#wish
          this.#wish = null
          if (wished) this.press(wished.finding, wished.label)
        } catch {
          // The next evaluation asks again.
        }
      }, PAUSE_MS)
      return () => {
        clearTimeout(timer)
        asked.abort()
      }
    })
  }

  get stale() {
    return this.#tried?.of !== session.evaluation
  }

  mendsOf(f: Finding) {
    return this.#tried?.findings.find((t) => t.rule === f.rule && t.place === f.place && t.bank === f.bank)?.mends ?? []
  }

  press(finding: Finding, label: string) {
    const mend = this.mendsOf(finding).find((m) => m.label === label)
    if (this.stale) this.#wish = { finding, label }
    else if (mend) session.edit(mend.changes, true)
  }
}
