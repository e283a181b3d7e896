import { api } from '../api/client'
import type { BringUpAnswer, BringUpEntry, BringUpStep, Change } from '../api/client'
import { session } from '../app/session.svelte'

/** What is written down of a step, beside what the store knows. */
export interface Wrote {
  value?: number
  words?: string
  capacity?: BringUpEntry['capacity']
}

/** The step in hand, what was found, and what waits to be judged. */
class BringUp {
  answer = $state.raw<BringUpAnswer | null>(null)
  trouble = $state<string | null>(null)
  /** Key of the step in hand; null: the first that is not done. */
  hand = $state<string | null>(null)
  /** The record the answer was worked out from. */
  #judged = $state.raw<BringUpEntry[]>([])
  #asked: AbortController | null = null

  readonly walk = $derived(this.answer?.walk ?? null)
  readonly steps = $derived(this.walk?.steps ?? [])
  readonly index = $derived.by(() => {
    const at = this.steps.findIndex((s) => s.key === this.hand)
    return at >= 0 ? at : (this.walk?.first ?? Math.max(0, this.steps.length - 1))
  })
  readonly step = $derived<BringUpStep | null>(this.steps[this.index] ?? null)
  readonly record = $derived(session.design?.bringUp ?? null)
  readonly seed = $derived(this.record?.simulated?.seed ?? null)
  /** Written since the last answer, and not judged yet. */
  readonly waiting = $derived.by(() => {
    const key = this.step?.key
    const fresh = (this.record?.entries ?? []).slice(this.#judged.length)
    return fresh.filter((e) => e.step === key).at(-1) ?? null
  })
  /** What the step in hand last said, judged or not. */
  readonly last = $derived.by(() => {
    const step = this.step
    const at = step?.entries.at(-1)
    return this.waiting ?? (at === undefined ? null : (this.record?.entries[at] ?? null))
  })

  async ask() {
    const design = session.worked
    if (!design) return
    this.#asked?.abort()
    const asked = (this.#asked = new AbortController())
    try {
      const answer = await api.bringUp(design, asked.signal)
      if (asked.signal.aborted) return
      this.answer = answer
      this.#judged = design.bringUp.entries
      this.trouble = null
      // What is in hand stays in hand while readings are judged.
      if (this.hand === null) this.hand = answer.walk.steps[answer.walk.first ?? -1]?.key ?? null
    } catch (e) {
      if (!asked.signal.aborted) this.trouble = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }

  /** Appends to the record: nothing in it is ever written over. */
  write(key: string, sign: string, what: BringUpEntry['what'], more: Wrote = {}, amps: number | null = null) {
    const entry = {
      step: key,
      what,
      at: now(),
      by: this.record?.by ?? '',
      sign,
      ...(more.value === undefined ? {} : { value: more.value }),
      ...(amps === null ? {} : { amps }),
      ...(more.words === undefined ? {} : { words: more.words }),
      ...(more.capacity === undefined ? {} : { capacity: more.capacity }),
      ...(this.seed === null ? {} : { simulated: this.seed }),
    }
    session.edit({ path: '/bringUp/entries/-', value: entry }, true)
  }

  read(step: BringUpStep, value: number) {
    this.hand = step.key
    this.write(step.key, step.sign, 'read', { value }, step.amps)
  }

  async simulate(step: BringUpStep): Promise<number | null> {
    try {
      const value = await api.simulatedReading(session.design!, step.key)
      this.read(step, value)
      return value
    } catch (e) {
      this.trouble = e instanceof Error ? e.message : 'The server does not answer.'
      return null
    }
  }

  /** Another made-up bank, or a meter in the hand: readings of the one do not count for the other. */
  meter(simulated: { seed: number; faults: number } | null) {
    this.hand = null
    session.edit({ path: '/bringUp/simulated', value: simulated }, true)
  }

  go(by: number) {
    const to = this.steps[this.index + by]
    if (to) this.hand = to.key
  }

  /** What is not done comes next, at first behind the step in hand. */
  next() {
    const open = (s: BringUpStep) => s.state !== 'done' && s.state !== 'look'
    const behind = this.steps.findIndex((s, i) => i > this.index && open(s))
    const to = this.steps[behind >= 0 ? behind : Math.min(this.index + 1, this.steps.length - 1)]
    if (to) this.hand = to.key
  }

  /** What a reading has shown goes into the design, as one edit. */
  take(step: BringUpStep) {
    session.edit(
      step.take.map((t): Change => ({ path: t.pointer, value: t.value })),
      true,
    )
  }

  reset() {
    this.#asked?.abort()
    this.answer = null
    this.#judged = []
    this.hand = null
    this.trouble = null
  }
}

/** Local, to the minute. */
export function now() {
  const t = new Date()
  const two = (n: number) => String(n).padStart(2, '0')
  return `${t.getFullYear()}-${two(t.getMonth() + 1)}-${two(t.getDate())}T${two(t.getHours())}:${two(t.getMinutes())}`
}

export const bringUp = new BringUp()
