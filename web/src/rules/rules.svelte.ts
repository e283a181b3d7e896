import { api } from '../api/client'
import type { HouseRule, RuleCurve, RuleLine, RuleRow, SchoolWhole } from '../api/client'
import { session } from '../app/session.svelte'
import { newest, orBefore } from '../ui/newest'

/** What the sheet of house rules is about: what each value would change, and the rule that is open. Nothing of it is kept. */
class RulesBench {
  wholes = $state.raw<SchoolWhole[]>([])
  rows = $state.raw<Map<string, RuleRow>>(new Map())
  headline = $state<string | null>(null)
  running = $state(false)
  worked = $state(0)
  of = $state(0)
  told = $state('')
  /** Id of the open rule. */
  open = $state<string | null>(null)
  curve = $state.raw<RuleCurve | null>(null)
  /** A value that is only dragged to. */
  tried = $state<number | null>(null)
  /** Rules that touch nothing are shown too. */
  all = $state(false)
  #stop: AbortController | null = null
  #of: unknown = null

  stop() {
    this.#stop?.abort()
    this.#stop = null
    this.running = false
  }

  reset() {
    this.stop()
    this.wholes = []
    this.rows = new Map()
    this.headline = null
    this.curve = null
    this.tried = null
    this.#of = null
  }

  /** Tries everything anew; what was found before stays until its row comes. */
  async search() {
    const design = session.worked
    if (!design || design === this.#of) return
    this.stop()
    const stop = new AbortController()
    this.#stop = stop
    this.#of = design
    this.running = true
    this.told = ''
    const rows = new Map(this.rows)
    let shown = 0
    try {
      await api.rules(design, session.bankIndex, stop.signal, (line: RuleLine) => {
        if (line.wholes) this.wholes = line.wholes
        if (line.row) rows.set(line.row.rule, line.row)
        if (line.headline) this.headline = line.headline
        this.of = line.of
        // Painted in gulps.
        if (line.done || line.worked - shown >= 8) {
          shown = line.worked
          this.worked = line.worked
          this.rows = new Map(rows)
        }
      })
    } catch (e) {
      if (!stop.signal.aborted) {
        this.told = e instanceof Error ? e.message : 'The server does not answer.'
        this.#of = null
      }
    }
    if (this.#stop === stop) this.stop()
  }

  #ask = newest(async () => {
    const rule = this.open
    if (!rule) return
    const curve = await orBefore(session.worked, this.curve, (design) => api.ruleCurve(design, session.bankIndex, rule))
    if (rule !== this.open) return
    this.curve = curve
    // The working that goes by the rule.
    try {
      const all = session.worked ? (await api.evaluate(session.worked, 'all')).working : null
      const here = (all ?? []).filter((e) => e.pointer.startsWith(session.base) || e.pointer.startsWith('/site'))
      const mine =
        here.find((e) => e.terms.some((t) => t.origin === 'house-rule' && t.ref === rule)) ??
        here.find((e) => e.houseRule === rule)
      if (rule !== this.open) return
      if (mine) session.present(mine, all!)
      else session.release()
    } catch {
      // The figures stand without their working.
    }
  })

  ask() {
    void this.#ask()
  }

  toggle(rule: HouseRule) {
    this.tried = null
    this.open = this.open === rule.id ? null : rule.id
    if (!this.open) this.curve = null
    this.ask()
  }
}

export const rules = new RulesBench()
