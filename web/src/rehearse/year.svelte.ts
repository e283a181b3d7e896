import { api, Refused } from '../api/client'
import type {
  Design,
  Drop,
  Remedy,
  RemedyLine,
  RiskStep,
  YearDay,
  YearInstant,
  YearIntro,
  YearLine,
  YearOutcome,
  YearQuarters,
  YearStretch,
} from '../api/client'
import { session } from '../app/session.svelte'
import { Calendar, QUARTERS } from './days'

/** Days that are looked at closely. */
export const FORTNIGHT = 14

/** The year of the bank in hand: run month by month, what would help, and the moment that is looked at. */
class Year {
  intro = $state.raw<YearIntro | null>(null)
  days = $state.raw<YearDay[]>([])
  quarters = $state.raw<YearQuarters[]>([])
  outcome = $state.raw<YearOutcome | null>(null)
  running = $state(false)
  trouble = $state<string | null>(null)

  /** Counts the years that are over: from then on days of it can be run again. */
  over = $state(0)

  /** How each day begins: what a stretch of days is run again from. */
  #begins: string[] = []
  /** The design of these days. */
  #of: Design | null = null

  /** Days as they would be with what is in hand, such as a sun that is dragged. */
  trying = $state.raw<YearStretch | null>(null)

  /** The day under the play head in instants. */
  instants = $state.raw<{ day: number; list: YearInstant[] } | null>(null)

  /** The first day looked at closely, and the quarter of the year under the play head. */
  frame = $state(0)
  at = $state(0)

  remedies = $state.raw<Remedy[]>([])
  pair = $state.raw<Remedy | null>(null)
  searching = $state(false)
  searched = $state(false)

  risk = $state.raw<RiskStep | null>(null)
  risking = $state(false)

  /** Another design, or this one with a remedy, in the same weather: the dashed line. */
  against = $state.raw<{ key: string; name: string; quarters: YearQuarters[]; headline: string } | null>(null)
  #against: AbortController | null = null

  calendar = $derived(new Calendar(this.intro?.first ?? '2026-07-01'))
  drops = $derived((session.design?.rehearsal.drops ?? []) as Drop[])

  #run: AbortController | null = null
  #search: AbortController | null = null
  #risk: AbortController | null = null
  /** Where the frame was put by hand; else it goes to the darkest days by itself. */
  #placed = false

  /** Whether its year is the one that is shown. */
  isOf(design: Design | null) {
    return design !== null && this.#of === design && this.#ofBank === session.bankIndex
  }
  #ofBank = 0

  async run() {
    this.stop()
    const [design, bank] = [session.worked, session.bankIndex]
    if (!design) return
    const stop = (this.#run = new AbortController())
    this.running = true
    this.trouble = null
    // A remedy was one of the design as it was.
    if (this.against?.key.startsWith('remedy ')) this.alone()
    const [days, quarters, begins]: [YearDay[], YearQuarters[], string[]] = [[], [], []]
    const before = this.days
    try {
      await api.rehearse<YearLine>('run', design, bank, stop.signal, (line) => {
        if (line.intro) {
          this.intro = line.intro
          if (line.intro.wait) this.days = this.quarters = []
        }
        if (line.month) {
          days.push(...line.month.days)
          quarters.push(...line.month.quarters)
          begins.push(...line.month.begins)
          // What was run before stays beyond where this one has come.
          this.days = before.length > days.length ? [...days, ...before.slice(days.length)] : [...days]
          this.quarters =
            this.quarters.length > quarters.length
              ? [...quarters, ...this.quarters.slice(quarters.length)]
              : [...quarters]
        }
        if (line.outcome) this.outcome = line.outcome
      })
      if (this.intro?.wait) this.outcome = null
      this.#begins = begins
      this.#of = design
      this.#ofBank = bank
      this.trying = this.instants = null
      this.#show()
      this.over++
      // What the year teaches stands in headlines and findings now.
      void session.evaluate()
    } catch (e) {
      if (!stop.signal.aborted) this.trouble = e instanceof Refused ? e.message : 'The server does not answer.'
    }
    if (this.#run === stop) {
      this.running = false
      this.#run = null
      if (!this.trouble && !stop.signal.aborted) void this.search()
    }
  }

  /** The darkest fortnight, or the one with the lowest charge. */
  #show() {
    if (this.#placed || this.days.length < FORTNIGHT) return
    let [best, most] = [0, -1]
    for (let from = 0; from + FORTNIGHT <= this.days.length; from++) {
      const part = this.days.slice(from, from + FORTNIGHT)
      const dark = part.reduce((sum, d) => sum + d.darkH, 0)
      const worth = dark > 0 ? dark : -Math.min(...part.map((d) => d.lowestSoc)) / 1000
      if (most < 0 && best === 0 && from === 0) most = worth - 1
      if (worth > most + 1e-12) [best, most] = [from, worth]
    }
    // The dark stands in the middle, not at its edge.
    const first = this.days.findIndex((d, i) => i >= best && d.darkH > 0)
    if (first >= 0) best = Math.max(0, Math.min(this.days.length - FORTNIGHT, first - 5))
    this.frame = best
    this.at = Math.round((best + 3.625) * QUARTERS)
  }

  /** These days of the year, as they are in hand or as they were run. */
  dayAt(day: number): YearDay | undefined {
    return this.trying?.days[day - this.trying.from] ?? this.days[day]
  }
  quartersAt(day: number): YearQuarters | undefined {
    return this.trying?.quarters[day - this.trying.from] ?? this.quarters[day]
  }

  #trial: AbortController | null = null
  #waiting: Drop[] | null = null

  /** Runs the fortnight alone with other drops, as fast as it is answered; what is in it begins as the year has it. */
  async attempt(drops: Drop[]) {
    this.#waiting = drops
    // What would help is another question after this; until then the hand has all there is.
    this.#search?.abort()
    const begins = this.#begins[this.frame]
    if (this.#trial || !this.#of || !begins) return
    const stop = (this.#trial = new AbortController())
    while (this.#waiting && !stop.signal.aborted) {
      const design = { ...this.#of, rehearsal: { ...this.#of.rehearsal, drops: this.#waiting } } as Design
      this.#waiting = null
      try {
        const answer = await api.stretch(design, session.bankIndex, begins, FORTNIGHT, stop.signal)
        if (!stop.signal.aborted) this.trying = answer
      } catch {
        // The whole year follows once it is let go.
      }
    }
    if (this.#trial === stop) this.#trial = null
  }

  /** Lets go of what was tried: the year as it was, until it is run anew. */
  leave(keep: boolean) {
    this.#waiting = null
    this.#trial?.abort()
    this.#trial = null
    if (keep) return
    this.trying = null
    if (!this.searched) void this.search()
  }

  #asked: AbortController | null = null

  /** The instants of the day under the play head. */
  async lookAt(day: number) {
    if (this.instants?.day === day) return
    const begins = this.#begins[day]
    this.#asked?.abort()
    if (!this.#of || !begins) return
    const stop = (this.#asked = new AbortController())
    try {
      const list = await api.instants(this.#of, session.bankIndex, begins, stop.signal)
      if (!stop.signal.aborted && list) this.instants = { day, list }
    } catch {
      // The path stays as the design has it.
    }
  }

  /** The instant under the play head. */
  get instant(): YearInstant | null {
    const day = Math.floor(this.at / QUARTERS)
    return this.instants?.day === day ? (this.instants.list[this.at % QUARTERS] ?? null) : null
  }

  /** Opens the working of a figure of the year. */
  present(about: string) {
    const equation = this.outcome?.working.find((e) => e.pointer === `/rehearsal/outcome/${about}`)
    if (equation) session.present(equation, this.outcome!.working)
  }

  async search() {
    this.#search?.abort()
    const [design, bank] = [session.worked, session.bankIndex]
    if (!design || !this.outcome) return
    const stop = (this.#search = new AbortController())
    this.searching = true
    this.searched = false
    const found: Remedy[] = []
    try {
      await api.rehearse<RemedyLine>('remedies', design, bank, stop.signal, (line) => {
        if (line.alone) found.push(line.alone)
        this.remedies = found.toSorted((a, b) => (a === found[0] ? -1 : b === found[0] ? 1 : a.darkH - b.darkH))
        this.pair = line.pair ?? (line.last ? this.pair : null)
        if (line.last) this.searched = true
      })
    } catch {
      // What was found stays; the next run asks anew.
    }
    if (this.#search === stop) this.searching = false
  }

  async ask() {
    const [design, bank] = [session.worked, session.bankIndex]
    if (!design) return
    const stop = (this.#risk = new AbortController())
    this.risking = true
    this.risk = null
    try {
      await api.rehearse<RiskStep>('risk', design, bank, stop.signal, (line) => (this.risk = line))
    } catch {
      // Stopped: what was run until then stays.
    }
    this.risking = false
  }

  /** Runs another design through the days of this one. */
  async compare(key: string, name: string, design: Design, bank: number) {
    this.#against?.abort()
    const stop = (this.#against = new AbortController())
    const quarters: YearQuarters[] = []
    let headline = ''
    const { from, weather } = session.worked!.rehearsal
    const same = { ...design, rehearsal: { ...design.rehearsal, from, weather } }
    try {
      await api.rehearse<YearLine>('run', same, bank, stop.signal, (line) => {
        if (line.intro?.wait) headline = line.intro.wait
        if (line.month) quarters.push(...line.month.quarters)
        if (line.outcome) headline = line.outcome.headline
      })
      this.against = { key, name, quarters, headline }
    } catch (e) {
      if (!stop.signal.aborted) this.trouble = e instanceof Refused ? e.message : 'The server does not answer.'
    }
  }
  alone() {
    this.#against?.abort()
    this.against = null
  }

  stop() {
    this.#run?.abort()
    this.#search?.abort()
    this.running = this.searching = false
  }
  stopRisk() {
    this.#risk?.abort()
  }

  reset() {
    this.stop()
    this.stopRisk()
    this.alone()
    this.intro = this.outcome = this.pair = this.risk = null
    this.days = this.quarters = []
    this.#begins = []
    this.#of = this.trying = this.instants = null
    this.remedies = []
    this.frame = this.at = 0
    this.#placed = false
    this.trouble = null
  }

  look(frame: number) {
    this.#placed = true
    const last = Math.max(0, this.days.length - FORTNIGHT)
    const next = Math.max(0, Math.min(last, Math.round(frame)))
    this.at = Math.max(0, this.at + (next - this.frame) * QUARTERS)
    this.frame = next
  }

  /** The play head; the frame follows it. */
  go(at: number) {
    const most = this.days.length * QUARTERS - 1
    this.at = Math.max(0, Math.min(most, Math.round(at)))
    const day = Math.floor(this.at / QUARTERS)
    if (day < this.frame || day >= this.frame + FORTNIGHT) {
      this.#placed = true
      this.frame = Math.max(0, Math.min(this.days.length - FORTNIGHT, day - 3))
    }
  }

  /** The next quarter that is dark and the one before was not; null: none is left. */
  nextDark(): number | null {
    const isDark = (q: number) => this.quarters[Math.floor(q / QUARTERS)]?.dark[q % QUARTERS] ?? false
    for (let q = this.at + 1; q < this.days.length * QUARTERS; q++) if (isDark(q) && !isDark(q - 1)) return q
    return null
  }

  setDrops(drops: Drop[], commit = true) {
    // The hand is here: these days stay in view, wherever the darkest are now.
    this.#placed = true
    session.edit({ path: '/rehearsal/drops', value: drops }, commit)
  }
  add(kind: Drop['kind'], hours: number, rest: Partial<Drop> = {}) {
    const from = Math.round(this.at / 4)
    const bank = session.bankIndex > 0 ? session.bank!.id : null
    this.setDrops([
      ...this.drops,
      {
        kind,
        from: this.calendar.iso(from),
        to: this.calendar.iso(from + hours),
        value: null,
        string: null,
        source: null,
        bank,
        weekdays: null,
        ...rest,
      },
    ])
  }
  change(index: number, part: Partial<Drop>, commit = true) {
    this.setDrops(
      this.drops.map((d, i) => (i === index ? { ...d, ...part } : d)),
      commit,
    )
  }
}

export const year = new Year()
