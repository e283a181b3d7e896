import { api } from '../api/client'
import type { LedgerRow, SheetsAnswer } from '../api/client'
import { keeper } from '../app/keeper.svelte'
import { session } from '../app/session.svelte'
import { changes, marked, today } from './ledger'

/** The papers of the design in hand and the ledger of its parts. */
class Sheets {
  answer = $state.raw<SheetsAnswer | null>(null)
  trouble = $state<string | null>(null)
  /** The part in hand, by its key: in the drawing and in the ledger alike. */
  hand = $state<string | null>(null)
  page = $state(0)
  /** The sheet of the wiring drawing that is shown. */
  sheet = $state(0)
  /** A stop that waits for its reason. */
  waits = $state<number | null>(null)
  #asked: AbortController | null = null

  readonly rows = $derived(new Map((this.answer?.ledger.rows ?? []).map((r) => [r.part.key, r])))

  async ask() {
    const design = session.worked
    if (!design) return
    this.#asked?.abort()
    const asked = (this.#asked = new AbortController())
    try {
      const answer = await api.sheets(design, keeper.revision, keeper.day, asked.signal)
      if (asked.signal.aborted) return
      this.answer = answer
      this.trouble = null
      this.sheet = Math.min(this.sheet, answer.drawing.sheets.length - 1)
    } catch (e) {
      if (!asked.signal.aborted) this.trouble = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }

  take(key: string | null) {
    this.hand = key
    this.waits = null
    if (key === null || !this.answer) return
    // The sheet that has it comes up, where it is on one.
    const zone = this.answer.drawing.zones[key]
    if (zone) this.sheet = zone.includes('·') ? Number(zone.split('·')[0]) - 1 : 0
  }

  /** All of a row, or so many, to a stop; proven only with a reason. */
  move(row: LedgerRow, stop: number, count = row.part.count, reason: string | null = null) {
    this.hand = row.part.key
    if (stop === 4 && !reason) {
      this.waits = 4
      return
    }
    this.waits = null
    const design = session.design!
    const before = row.entry === null ? [] : design.ledger[row.entry].marks
    session.edit(changes(design, row, { marks: marked(before, stop, count, today(), reason) }), true)
  }

  reset() {
    this.#asked?.abort()
    this.answer = null
    this.hand = null
    this.page = this.sheet = 0
  }
}

export const sheets = new Sheets()
