import { api, Refused } from '../api/client'
import type { ImportLine, LiveReading, LogAnswer, LogEntry, LogLesson } from '../api/client'
import { session } from '../app/session.svelte'

/** How often the log is read anew while a made-up monitor writes into it. */
const LIVE_MS = 3000

const RETRY_MS = 4000

/** The days that are looked at, what was read of them, and what is on its way in. */
class Log {
  answer = $state.raw<LogAnswer | null>(null)
  trouble = $state<string | null>(null)
  /** The first day looked at; null: the last days there are. */
  from = $state<string | null>(null)
  days = $state(7)
  /** What was just taken out, and how it comes back. */
  taken = $state<{ text: string; back: () => Promise<void> } | null>(null)
  /** A file on its way in. */
  coming = $state<ImportLine | null>(null)
  /** What the made-up monitor said last. */
  reading = $state.raw<LiveReading | null>(null)
  #asked: AbortController | null = null
  #import: AbortController | null = null
  #source: EventSource | null = null
  #again: ReturnType<typeof setTimeout> | null = null

  readonly view = $derived(this.answer?.view ?? null)
  readonly frame = $derived(this.view?.frame ?? null)
  readonly live = $derived(this.answer?.live ?? null)

  get #bank() {
    return session.bank!.id
  }

  async ask() {
    const design = session.worked
    if (!design || !session.id) return
    this.#asked?.abort()
    const asked = (this.#asked = new AbortController())
    try {
      const answer = await api.log(
        session.id,
        design,
        session.bankIndex,
        this.from ?? undefined,
        this.days,
        asked.signal,
      )
      if (asked.signal.aborted) return
      this.answer = answer
      this.trouble = null
      if (answer.live) this.#watch()
      else this.#unwatch()
    } catch (e) {
      if (asked.signal.aborted) return
      this.trouble = said(e)
      // A server that is away or busy is asked again.
      setTimeout(() => {
        if (this.#asked === asked) void this.ask()
      }, RETRY_MS)
    }
  }

  look(from: string | null, days: number) {
    this.from = from
    this.days = Math.max(1, Math.min(366, Math.round(days)))
    void this.ask()
  }

  /** A lesson is put into the plan as one edit, with undo. */
  apply(lesson: LogLesson) {
    session.edit(lesson.changes, true)
  }

  async write(entries: Partial<LogEntry>[]): Promise<boolean> {
    return this.#try(async () => {
      await api.writeEntries(session.id!, this.#bank, entries)
    })
  }

  async takeBack(entry: number, text: string) {
    const id = session.id!
    await this.#try(async () => {
      await api.takeBackEntry(id, entry)
      this.taken = { text, back: () => api.restoreEntry(id, entry) }
    })
  }

  async takeOut(series: number, text: string) {
    const id = session.id!
    await this.#try(async () => {
      await api.takeOutSeries(id, series)
      this.taken = { text, back: () => api.restoreSeries(id, series) }
    })
  }

  async bringBack() {
    const taken = this.taken
    if (!taken) return
    await this.#try(async () => {
      await taken.back()
      this.taken = null
    })
  }

  async takeIn(file: File, shape: string): Promise<ImportLine | null> {
    const stop = (this.#import = new AbortController())
    let last: ImportLine | null = null
    this.coming = { readings: 0, share: 0, series: null, read: null, fault: null }
    const done = await this.#try(async () => {
      await api.takeInFile(
        session.id!,
        {
          bank: this.#bank,
          name: file.name,
          shape,
          ratedAh: session.result?.bank?.holds.ah,
          nominalV: session.result?.voltage?.nominalV,
        },
        file,
        stop.signal,
        (line) => (this.coming = last = line),
      )
      this.from = null
    }, stop.signal)
    this.coming = null
    return done ? last : null
  }

  stopTakingIn() {
    this.#import?.abort()
  }

  async makeUp(seed: number, from: string, days: number): Promise<boolean> {
    return this.#try(async () => {
      await api.makeUp(session.id!, session.worked!, session.bankIndex, seed, from, days)
      this.from = null
    })
  }

  async start(seed: number, speed: number): Promise<boolean> {
    return this.#try(async () => {
      this.from = null
      await api.startLive(session.id!, session.worked!, session.bankIndex, seed, speed)
    })
  }

  async stop() {
    this.#unwatch()
    await this.#try(() => api.stopLive(session.id!, this.#bank))
  }

  #watch() {
    if (this.#source) return
    const source = new EventSource(`/api/designs/${session.id}/log/live?bank=${encodeURIComponent(this.#bank)}`)
    this.#source = source
    source.addEventListener('reading', (e) => {
      this.reading = JSON.parse(e.data as string) as LiveReading
      this.#again ??= setTimeout(() => {
        this.#again = null
        void this.ask()
      }, LIVE_MS)
    })
    // It ended: what it was is asked for, instead of knocking again and again.
    source.onerror = () => {
      this.#unwatch()
      void this.ask()
    }
  }

  #unwatch() {
    this.#source?.close()
    this.#source = null
    this.reading = null
    if (this.#again) clearTimeout(this.#again)
    this.#again = null
  }

  async #try(act: () => Promise<void>, signal?: AbortSignal): Promise<boolean> {
    try {
      await act()
      this.trouble = null
      await this.ask()
      return true
    } catch (e) {
      if (!signal?.aborted) this.trouble = said(e)
      return false
    }
  }

  reset() {
    this.#asked?.abort()
    this.#import?.abort()
    this.#unwatch()
    this.answer = null
    this.from = null
    this.days = 7
    this.taken = null
    this.trouble = null
  }
}

function said(e: unknown) {
  // What a browser says of a line that is cut is no sentence.
  return e instanceof Refused ? e.message : 'The server does not answer. What you typed stays here: try again.'
}

export const log = new Log()
