import { api, Refused } from '../api/client'
import type { Design, DesignAnswer } from '../api/client'

/** Edits that are not confirmed yet, as they wait in the browser, also across a reload. */
interface Waiting {
  revision: number
  edits: Design[]
  /** When this window last knew of them; another window may take over what was left behind. */
  at: number
}

const PREFIX = 'inky-badger.waiting.'
const RETRY_MS = 2000
const LEFT_BEHIND_MS = 15_000

/** Each window has its own queue; a reload keeps it. */
const windowId = (() => {
  const kept = sessionStorage.getItem('inky-badger.window')
  if (kept) return kept
  const made = Math.random().toString(36).slice(2, 10)
  sessionStorage.setItem('inky-badger.window', made)
  return made
})()

/** Keeps the design in hand: commits in order, waits out an absent server, walks its states, and stops at a conflict. */
class Keeper {
  keptAt = $state<Date | null>(null)
  waiting = $state(0)
  canUndo = $state(false)
  canRedo = $state(false)
  /** Why nothing is confirmed at the moment; null while all is well. */
  trouble = $state<string | null>(null)
  /** Somebody else kept a newer state: theirs, and mine that was not kept. */
  conflict = $state.raw<{ theirs: DesignAnswer; mine: Design } | null>(null)

  /** Whether the choice is on the screen. */
  asking = $state(false)

  #id: string | null = null
  #revision = 0
  #queue: Design[] = []
  #pumping: Promise<void> | null = null
  #retry: ReturnType<typeof setTimeout> | undefined
  /** Told when the server confirms something after it was away. */
  onback: () => void = () => {}

  constructor() {
    addEventListener('online', () => void this.pump())
    addEventListener('visibilitychange', () => void this.pump())
  }

  get words(): string {
    const edits = `${this.waiting} ${this.waiting === 1 ? 'edit' : 'edits'} waiting`
    if (this.conflict) return 'not kept: changed elsewhere'
    if (this.trouble) return `not kept: ${this.trouble}, ${edits}`
    if (this.waiting > 0) return 'keeping…'
    return this.keptAt ? `kept ${time(this.keptAt)}` : ''
  }

  /** Takes a design in hand; gives the document to go on with, which may hold edits that were never confirmed. */
  open(answer: DesignAnswer): Design {
    this.#id = answer.id
    this.conflict = null
    this.trouble = null
    this.#confirmed(answer)
    const left = this.#left(answer.id)
    this.#queue = left?.edits ?? []
    this.waiting = this.#queue.length
    const newest = this.#queue.at(-1)
    if (!newest) return answer.design
    if (left!.revision !== answer.revision && !same(this.#queue[0], answer.design)) this.#collide(answer, newest)
    else void this.pump()
    return newest
  }

  async close() {
    await this.#pumping
    clearTimeout(this.#retry)
    this.#id = null
    this.#queue = []
    this.waiting = 0
    this.conflict = null
  }

  /** One commit: one step of undo. */
  push(design: Design): Promise<void> {
    this.#queue.push(design)
    if (this.conflict) this.conflict = { ...this.conflict, mine: design }
    this.#remember()
    return this.pump()
  }

  pump(): Promise<void> {
    this.#pumping ??= this.#send().finally(() => (this.#pumping = null))
    return this.#pumping
  }

  async #send() {
    clearTimeout(this.#retry)
    const id = this.#id
    while (id && this.#queue.length > 0 && !this.conflict) {
      const edit = this.#queue[0]
      try {
        this.#confirmed(await api.replace(id, this.#revision, edit))
        this.#done()
      } catch (e) {
        if (e instanceof Refused && e.status === 412) {
          if (!(await this.#meet(id, edit))) return
        } else if (e instanceof Refused && e.status === 400) {
          // A document that passed the evaluation is not refused here; should it be, it must not block what follows.
          this.#done()
        } else if (e instanceof Refused && e.status === 404) {
          this.trouble = 'the design was taken off the shelf'
          return
        } else {
          this.trouble = e instanceof Refused && e.status === 503 ? lower(e.message) : 'server away'
          this.#remember()
          this.#retry = setTimeout(() => void this.pump(), RETRY_MS)
          return
        }
      }
    }
  }

  /** A stale write: the answer to our own may have been lost on the way, or somebody else was faster. */
  async #meet(id: string, edit: Design): Promise<boolean> {
    try {
      const theirs = await api.design(id)
      if (same(theirs.design, edit)) {
        this.#confirmed(theirs)
        this.#done()
        return true
      }
      this.#collide(theirs, this.#queue.at(-1)!)
    } catch {
      this.trouble = 'server away'
      this.#retry = setTimeout(() => void this.pump(), RETRY_MS)
    }
    return false
  }

  #collide(theirs: DesignAnswer, mine: Design) {
    this.conflict = { theirs, mine }
    this.asking = true
  }

  #done() {
    const wasAway = this.trouble !== null
    this.#queue.shift()
    this.trouble = null
    this.#remember()
    if (wasAway) this.onback()
  }

  #confirmed(answer: DesignAnswer) {
    this.#revision = answer.revision
    this.keptAt = new Date(answer.updatedUtc)
    this.canUndo = answer.canUndo
    this.canRedo = answer.canRedo
  }

  /** One state back or forward; null when there is none or the server is away. */
  async walk(step: 'undo' | 'redo'): Promise<Design | null> {
    await this.pump()
    if (!this.#id || this.#queue.length > 0 || this.conflict) return null
    try {
      const answer = await api[step](this.#id, this.#revision)
      this.#confirmed(answer)
      return answer.design
    } catch (e) {
      if (e instanceof Refused && e.status === 412) {
        const theirs = await api.design(this.#id)
        this.#confirmed(theirs)
        return theirs.design
      }
      return null
    }
  }

  /** Theirs stands; mine goes. */
  takeTheirs(): Design {
    const { theirs } = this.conflict!
    this.#queue = []
    this.conflict = null
    this.#confirmed(theirs)
    this.#remember()
    return theirs.design
  }

  /** Mine is kept as the newest state, on top of theirs; theirs is one undo away. */
  putMineOnTop(): Promise<void> {
    const { theirs, mine } = this.conflict!
    this.#confirmed(theirs)
    this.#queue = [mine]
    this.conflict = null
    this.#remember()
    return this.pump()
  }

  /** Mine becomes a design of its own; theirs stands here. Gives the copy's id. */
  async keepMineAsCopy(): Promise<string> {
    const { mine } = this.conflict!
    const copy = await api.add({ ...mine, name: `${mine.name.slice(0, 74)}, mine` })
    this.takeTheirs()
    return copy.id
  }

  #remember() {
    this.waiting = this.#queue.length
    if (!this.#id) return
    const key = `${PREFIX}${this.#id}.${windowId}`
    if (this.#queue.length === 0) localStorage.removeItem(key)
    else
      localStorage.setItem(
        key,
        JSON.stringify({ revision: this.#revision, edits: this.#queue, at: Date.now() } satisfies Waiting),
      )
  }

  /** What this window left waiting, or a window that is gone. */
  #left(id: string): Waiting | null {
    const own = `${PREFIX}${id}.${windowId}`
    for (const key of [own, ...Object.keys(localStorage).filter((k) => k.startsWith(`${PREFIX}${id}.`) && k !== own)]) {
      const text = localStorage.getItem(key)
      if (!text) continue
      const waiting = JSON.parse(text) as Waiting
      if (key !== own && Date.now() - waiting.at < LEFT_BEHIND_MS) continue
      if (key !== own) {
        localStorage.removeItem(key)
        localStorage.setItem(own, text)
      }
      return waiting
    }
    return null
  }
}

function same(a: Design, b: Design): boolean {
  return canonical(a) === canonical(b)
}

/** Order of fields does not make documents differ. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  )
}

function lower(sentence: string): string {
  return sentence.charAt(0).toLowerCase() + sentence.slice(1).replace(/\.$/, '')
}

export function time(date: Date): string {
  return date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

export const keeper = new Keeper()
