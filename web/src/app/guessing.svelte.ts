import { api } from '../api/client'
import type { GuessAnswer, GuessQuestion } from '../api/client'
import { readNumber } from '../ui/written'
import { memory } from './memory.svelte'
import { session } from './session.svelte'

const KEY = 'inky-badger.guess-first'

/** Guess first, as a switch: figures one should have in the head are covered until one has said them. */
class Guessing {
  on = $state(memory.read(KEY) === 'on')
  /** The question whose figure was pressed. */
  open = $state.raw<GuessQuestion | null>(null)
  answer = $state.raw<GuessAnswer | null>(null)
  trouble = $state<string | null>(null)
  #questions = $state.raw<ReadonlyMap<string, GuessQuestion>>(new Map())
  #done = $state.raw<ReadonlySet<string>>(new Set())

  turn(on: boolean) {
    this.on = on
    this.#done = new Set()
    this.open = null
    if (on) memory.write(KEY, 'on')
    else memory.forget(KEY)
  }

  /** Which figures the design in hand has to guess. */
  async ask() {
    const design = session.worked
    if (!this.on || !design || design.banks.length === 0) return
    try {
      const list = await api.guesses(design, session.bankIndex)
      this.#questions = new Map(list.map((q) => [q.pointer, q]))
    } catch {
      // Nothing is covered that nobody could open again.
      this.#questions = new Map()
    }
  }

  covers(pointer: string | null | undefined): boolean {
    return this.on && !!pointer && this.#questions.has(pointer) && !this.#done.has(`${session.id}${pointer}`)
  }

  press(pointer: string) {
    this.open = this.#questions.get(pointer) ?? null
    this.answer = null
    this.trouble = null
  }

  /** A sentence without the figures that are covered. */
  mask(text: string): string {
    if (!this.on) return text
    let masked = text
    for (const pointer of this.#questions.keys()) {
      if (!this.covers(pointer)) continue
      const value = session.figure(pointer)
      if (value === null) continue
      const unit = this.#questions.get(pointer)!.unit
      const said = unit === '%' ? session.show(value, 'fraction') : session.show(value, unit === 'mm²' ? 'mm2' : unit)
      if (said.text.length > 0) masked = masked.replaceAll(`${said.text} ${said.unit}`, `… ${said.unit}`)
    }
    return masked
  }

  async say(typed: string) {
    const question = this.open
    const read = readNumber(typed)
    if (!question) return
    if (!read || read.other !== null || !(read.value > 0)) {
      this.trouble = read?.other
        ? 'That can be read in two ways: write it without the comma or point.'
        : `A figure above 0, in ${question.unit}.`
      return
    }
    try {
      this.trouble = null
      this.answer = await api.sayGuess(session.worked!, session.bankIndex, question.id, read.value)
      this.uncover(question.pointer)
    } catch (e) {
      this.trouble = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }

  uncover(pointer: string) {
    this.#done = new Set([...this.#done, `${session.id}${pointer}`])
  }
}

export const guessing = new Guessing()
