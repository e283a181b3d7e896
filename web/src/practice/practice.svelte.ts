import { api, Refused } from '../api/client'
import type { FoundBank, PracticeAnswer, PracticeGo, PracticeLevel, PracticeResults } from '../api/client'
import { memory } from '../app/memory.svelte'
import { newKey } from '../app/newKey'
import { session } from '../app/session.svelte'

const KEPT = 'inky-badger.practice'
/** Numbers of banks and of walks go from 1 to this. */
export const MOST_SEED = 999_999

/** What a go is, so that it goes on where the page was left. */
interface Kept {
  key: string
  seed: number
  level: number
  answers: PracticeAnswer[]
  over: boolean
  spentS: number
}

/** The bank that is looked at, what was pointed at, and what came of it. */
class Practice {
  levels = $state.raw<PracticeLevel[]>([])
  bank = $state.raw<FoundBank | null>(null)
  go = $state.raw<PracticeGo | null>(null)
  results = $state.raw<PracticeResults | null>(null)
  pointed = $state<string | null>(null)
  /** Of the sentences of the part pointed at. */
  chosen = $state<string | null>(null)
  busy = $state(false)
  trouble = $state<string | null>(null)
  /** Seconds of this go; those with the page out of sight do not count. */
  spentS = $state(0)
  /** The number of faults is hidden on request. */
  hidden = $state(false)

  #key = ''
  #answers: PracticeAnswer[] = []
  #over = false

  readonly names = $derived(new Map((this.bank?.parts ?? []).map((p) => [p.key, p.name])))
  readonly part = $derived(this.bank?.parts.find((p) => p.key === this.pointed) ?? null)
  /** All that is written on what is pointed at. */
  readonly lines = $derived.by(() => (this.bank && this.pointed ? linesOf(this.bank, this.pointed) : []))
  readonly last = $derived(this.go?.answers.at(-1) ?? null)
  readonly over = $derived(this.go?.over ?? false)

  async begin() {
    try {
      this.trouble = null
      const [levels, results] = await Promise.all([api.practiceLevels(), api.practiceResults()])
      this.levels = levels
      this.results = results
      if (this.bank) return
      const kept = read()
      if (kept) await this.open(kept.seed, kept.level, kept)
      else await this.open(someSeed(), results.goes.length === 0 ? 1 : (results.goes.at(-1)?.level ?? 1))
    } catch (e) {
      this.#told(e)
    }
  }

  async open(seed: number, level: number, kept: Kept | null = null) {
    this.busy = true
    try {
      this.trouble = null
      const bank = await api.practiceBank(seed, level)
      this.#key = kept?.key ?? newKey()
      this.#answers = kept?.answers ?? []
      this.#over = kept?.over ?? false
      this.spentS = kept?.spentS ?? 0
      this.pointed = this.chosen = null
      session.release()
      this.go = await this.#judge(bank)
      this.bank = bank
      this.#keep()
    } catch (e) {
      // What was kept by another version may say what nobody can say any more; a server that is away takes no go with it.
      if (kept && e instanceof Refused && e.status === 400) {
        memory.forget(KEPT)
        await this.open(someSeed(), Math.min(level, this.levels.length))
      } else this.#told(e)
    } finally {
      this.busy = false
    }
  }

  another(level = this.bank?.level.number ?? 1) {
    return this.open(someSeed(), level)
  }

  point(key: string | null) {
    if (this.pointed !== key) this.chosen = null
    this.pointed = key
  }

  async say(id = this.chosen) {
    if (!this.bank || !this.pointed || !id || this.over || this.busy) return
    this.#answers = [...this.#answers, { part: this.pointed, said: id, atS: Math.round(this.spentS) }]
    if (await this.#send()) this.chosen = null
    else this.#answers = this.#answers.slice(0, -1)
    await this.show(this.last?.shown.pointer ?? null)
  }

  async showLeft() {
    this.#over = true
    if (!(await this.#send())) this.#over = false
  }

  /** The working of a figure of the bank as found, in the band below. */
  async show(pointer: string | null) {
    if (!pointer || !this.bank) {
      session.release()
      return
    }
    try {
      const { working } = await api.evaluate(this.bank.document, 'all')
      const equation = working?.find((e) => e.pointer === pointer)
      if (equation) session.present(equation, working ?? [])
      else session.release()
    } catch {
      session.release()
    }
  }

  async #send(): Promise<boolean> {
    this.busy = true
    try {
      this.trouble = null
      this.go = await this.#judge(this.bank!)
      this.#keep()
      if (this.go.over) this.results = await api.practiceResults()
      return true
    } catch (e) {
      this.#told(e)
      return false
    } finally {
      this.busy = false
    }
  }

  #judge(bank: FoundBank) {
    return api.practiceGo({
      key: this.#key,
      seed: bank.seed,
      level: bank.level.number,
      answers: this.#answers,
      over: this.#over,
    })
  }

  #keep() {
    if (!this.bank) return
    const kept: Kept = {
      key: this.#key,
      seed: this.bank.seed,
      level: this.bank.level.number,
      answers: this.#answers,
      over: this.#over,
      spentS: Math.round(this.spentS),
    }
    memory.write(KEPT, JSON.stringify(kept))
  }

  #told(e: unknown) {
    this.trouble = e instanceof Error ? e.message : 'The server does not answer.'
  }
}

export const someSeed = () => 1 + Math.floor(Math.random() * 9_999)

/** A number as it was typed; null: there is no such bank. */
export function seedOf(typed: string): number | null {
  const digits = typed.replace(/[\s,]/g, '')
  const n = Number(digits)
  return /^\d+$/.test(digits) && n >= 1 && n <= MOST_SEED ? n : null
}

function read(): Kept | null {
  try {
    const kept = JSON.parse(memory.read(KEPT) ?? 'null') as Kept | null
    return kept && typeof kept.key === 'string' && Array.isArray(kept.answers) && Number.isInteger(kept.seed)
      ? kept
      : null
  } catch {
    return null
  }
}

/** What stands on a part of the drawing, all of it. */
export function linesOf(bank: FoundBank, key: string): string[] {
  const d = bank.drawing
  const lines: string[] = []
  if (d.place.key === key) lines.push(...d.place.lines)
  for (const j of d.joins) if (j.key === key) lines.push(...j.lines)
  for (const b of d.banks) {
    for (const u of b.units)
      if (u.key === key)
        lines.push(`${u.volts} ${u.ah}`, u.kind, ...u.measured, ...(u.joint ? [u.joint] : []), ...u.plate)
    for (const c of b.conductors) if (c.copper.key === key) lines.push(c.copper.label)
    for (const t of [b.whole, b.stringFuses, b.fuse, b.switch, b.shunt, b.bus, b.bonding, b.inverter])
      if (t?.key === key) lines.push(...(t.lines.length > 0 ? t.lines : ['nothing there']))
    if (b.cable.key === key) lines.push(b.cable.label)
    for (const r of [...(b.panel ? [b.panel] : []), ...b.runs]) {
      if (r.front?.key === key) lines.push(...r.front.lines)
      if (r.thing.key !== key) continue
      lines.push(...r.thing.lines)
      if (r.fuse) lines.push(r.fuse.absent ? 'no fuse' : `fuse ${r.fuse.lines.join(', ')}`)
      if (r.copper) lines.push(r.copper.label)
      if (r.pastShunt) lines.push('its negative goes to the bank’s own post')
      if (r.tap !== null) lines.push(`taken after ${r.tap} of ${b.series} units of a string`)
    }
  }
  return lines
}

export const practice = new Practice()
