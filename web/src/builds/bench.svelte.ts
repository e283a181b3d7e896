import { api } from '../api/client'
import type { Build, BuildChoice, BuildComparison, BuildLine, BuildTerms } from '../api/client'
import { session } from '../app/session.svelte'

export const PRESENT = 'present'

/** How builds are looked at. */
export type Look = 'beside' | 'front' | 'stages' | 'use' | 'less' | 'prices'
export const looks: readonly (readonly [Look, string])[] = [
  ['beside', 'side by side'],
  ['front', 'all as points'],
  ['stages', 'in stages'],
  ['use', 'rare or daily use'],
  ['less', 'do less'],
  ['prices', 'sets of prices'],
]
const MOST = 5
/** Builds that are put beside the present one by themselves. */
const BESIDE = 3

/** What the place of builds is about: all builds found, those side by side, and what is tried on them. */
class BuildsBench {
  look = $state<Look>('beside')
  found = $state.raw<Build[]>([])
  screening = $state.raw<{ candidates: number; out: NonNullable<BuildLine['out']>; of: number } | null>(null)
  worked = $state(0)
  running = $state(false)
  told = $state('')
  /** Keys side by side; the first is always the design as it is. */
  keys = $state.raw<string[]>([PRESENT])
  /** Key of the build that is turned against the others. */
  subject = $state(PRESENT)
  sameLine = $state(false)
  /** Count the units for the energy that is asked alone. */
  even = $state(false)
  /** A unit price that is only tried. */
  tryPrice = $state<number | null>(null)
  /** An hour's rate, or cycles a year, that are only tried. */
  tryRate = $state<number | null>(null)
  tryCycles = $state<number | null>(null)
  comparison = $state.raw<BuildComparison | null>(null)
  /** Build whose bill is open. */
  bill = $state<string | null>(null)
  /** Whose builds were found: design and bank. */
  of = $state('')
  #stop: AbortController | null = null
  /** The document that was searched last, whole. */
  #searched: unknown = null
  #choices = new Map<string, BuildChoice>()
  #asking = false
  #again = false
  #own = false

  reset() {
    this.stop()
    this.#searched = null
    this.found = []
    this.screening = null
    this.keys = [PRESENT]
    this.subject = PRESENT
    this.comparison = null
    this.tryPrice = this.tryRate = this.tryCycles = null
    this.bill = null
    this.#own = false
    this.#choices.clear()
  }

  stop() {
    this.#stop?.abort()
    this.#stop = null
    this.running = false
  }

  /** Searches anew; what is side by side stays as long as it is still found. */
  async search() {
    const design = session.worked
    if (!design || (design === this.#searched && this.of === this.here)) return
    this.stop()
    this.#searched = null
    const stop = new AbortController()
    this.#stop = stop
    this.running = true
    this.of = this.here
    this.told = ''
    this.worked = 0
    const found: Build[] = []
    let shown = 0
    try {
      await api.builds(design, session.bankIndex, stop.signal, (line) => {
        if (line.out) this.screening = { candidates: line.candidates ?? 0, out: line.out, of: line.of }
        if (line.build) {
          found.push(line.build)
          this.#choices.set(line.build.key, line.build.choice)
        }
        this.worked = line.worked
        // Painted in gulps: each line alone would cost more than the builds.
        if (line.done || found.length - shown >= 25) {
          shown = found.length
          this.found = order(found)
        }
      })
      this.found = order(found)
      this.#searched = design
      this.#beside()
      // What the search has taught is found from now on.
      if (session.worked === design) void session.evaluate()
    } catch (e) {
      if (!stop.signal.aborted) this.told = e instanceof Error ? e.message : 'The server does not answer.'
      else this.found = order(found)
    }
    if (this.#stop === stop) {
      this.running = false
      this.#stop = null
    }
    await this.compare()
  }

  /** As long as nobody chose: the cheapest that fit, each of another kind. */
  #beside() {
    if (this.#own) return
    const kinds = new Set<string>()
    const pick: string[] = []
    for (const b of this.list.filter((x) => x.fits)) {
      const kind = `${b.choice.unit.chemistry} ${b.choice.unit.cells}`
      if (kinds.has(kind) || (b.key === this.presentKey && pick.length > 0)) continue
      kinds.add(kind)
      if (b.key !== this.presentKey) pick.push(b.key)
      if (pick.length === BESIDE) break
    }
    this.keys = [PRESENT, ...pick]
  }

  /** The design and bank in hand. */
  get here() {
    return `${session.id} ${session.bankIndex}`
  }

  get presentKey() {
    return this.comparison?.builds[0]?.key ?? null
  }

  /** What is found, of the present product line alone where that is asked. */
  get list(): Build[] {
    const line = session.result?.bank?.unit.productLine
    return this.sameLine && line ? this.found.filter((b) => b.choice.unit.productLine === line) : this.found
  }

  /** The present build beside the cheapest of each chemistry that can be built. */
  putChemistries() {
    const seen = new Set<string>()
    const pick = this.found.filter((b) => {
      if (!b.fits || b.key === this.presentKey || seen.has(b.choice.unit.chemistry)) return false
      seen.add(b.choice.unit.chemistry)
      return true
    })
    this.put([PRESENT, ...pick.map((b) => b.key)])
  }

  put(keys: string[]) {
    this.#own = true
    this.keys = keys.slice(0, MOST)
    if (!this.keys.includes(this.subject)) this.subject = PRESENT
    void this.compare()
  }

  get full() {
    return this.keys.length >= MOST
  }

  /** Asks for the comparison; while an answer is on its way only the newest state is asked for next. */
  async compare() {
    this.#again = true
    if (this.#asking) return
    this.#asking = true
    while (this.#again) {
      this.#again = false
      const design = session.worked
      if (!design) break
      const asked = this.keys
      // A build that is no longer found is left out.
      const keys = asked.filter((k) => k === PRESENT || this.#choices.has(k))
      const kept = keys.map((k) => (k === PRESENT ? null : this.#choices.get(k)!))
      const subject = Math.max(0, keys.indexOf(this.subject))
      try {
        const answer = await api.compareBuilds(design, session.bankIndex, kept, this.terms, subject)
        // Others were put side by side meanwhile: this is no answer to them.
        if (this.keys !== asked) continue
        // The design may stand on one of them now: it is there once, as the design.
        const present = answer?.builds[0]?.key
        this.keys = keys.filter((k) => k !== present)
        if (!this.keys.includes(this.subject)) this.subject = PRESENT
        this.comparison = answer
        this.told = ''
      } catch (e) {
        this.told = e instanceof Error ? e.message : 'The server does not answer.'
      }
    }
    this.#asking = false
  }

  /** The build in hand; null: the design as it is. */
  get choiceOfSubject(): BuildChoice | null {
    return this.subject === PRESENT ? null : (this.#choices.get(this.subject) ?? null)
  }

  /** What is tried, for those who ask apart. */
  get terms(): BuildTerms {
    const unit = this.unitOfSubject
    return {
      unitPrices: this.tryPrice !== null && unit ? { [unit]: this.tryPrice } : {},
      hourRate: this.tryRate,
      cyclesPerYear: this.tryCycles,
    }
  }

  get unitOfSubject(): string | null {
    if (this.subject === PRESENT) return session.result?.bank?.unit.key ?? null
    return this.#choices.get(this.subject)?.unit.key ?? null
  }

  /** What makes it of the design. */
  changes(build: Build) {
    return api.takeBuild(session.worked!, session.bankIndex, build.choice, {
      unitPrices: {},
      hourRate: null,
      cyclesPerYear: null,
    })
  }

  /** Takes a build over into the design; undo brings the old one back. */
  async take(build: Build) {
    session.edit(await this.changes(build), true)
  }
}

/** Those that fit first, then by whole cost; of equals by key, so that the list is the same every time. */
function order(found: Build[]): Build[] {
  return [...found].sort(
    (a, b) =>
      Number(b.fits) - Number(a.fits) ||
      Number(a.bill.unknown.length > 0) - Number(b.bill.unknown.length > 0) ||
      a.bill.total - b.bill.total ||
      (a.key < b.key ? -1 : 1),
  )
}

export const builds = new BuildsBench()

export const letter = (i: number) => String.fromCharCode(65 + i)
export const styleWord = { 'same-end': 'one end', diagonal: 'diagonal', 'bus-bars': 'bus bars', rails: 'own take-offs' }
