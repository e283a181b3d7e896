import { api, Refused } from '../api/client'
import type { Change, Design, DesignAnswer } from '../api/client'
import { changesBetween, keptAs, withChanges } from '../ui/pointer'
import { memory } from './memory.svelte'
import { Left, windowsOf, withEdits } from './waiting'
import type { Edit } from './waiting'
import { isOpen, windowName } from './windows'

const RETRY_MS = 2000
/** So long nobody doubts that an answer comes. */
const SOON_MS = 2500

/** An edit on its way. One that is not ready may still be taken back by what follows from it. */
interface Queued extends Edit {
  ready: boolean
}

/** Edits of a window that is closed, as they are offered. */
export interface Offer {
  left: Left
  count: number
  at: Date
}

/**
 * Keeps the design in hand: remembers every edit before anything is asked, sends them in order, waits out an absent server, stops at a conflict,
 * and puts aside what the server refuses without holding up what comes after it.
 */
class Keeper {
  keptAt = $state<Date | null>(null)
  waiting = $state(0)
  canUndo = $state(false)
  canRedo = $state(false)
  /** Why nothing is confirmed at the moment; null while all is well. */
  trouble = $state<string | null>(null)
  /** The server does not know this device any more: it wants a new key. */
  locked = $state(false)
  /** Edits that were refused, with their reasons. */
  refused = $state.raw<Edit[]>([])
  /** What closed windows left of this design. */
  offers = $state.raw<Offer[]>([])
  /** Somebody else kept a newer state: theirs, and mine that was not kept. */
  conflict = $state.raw<{ theirs: DesignAnswer; mine: Design; offer: Offer | null } | null>(null)
  /** Whether the choice is on the screen. */
  asking = $state(false)

  #id: string | null = null
  #left: Left | null = null
  #revision = 0
  #updated: string | undefined
  /** The state the server confirmed last; the queue goes on from it. */
  #base: Design | null = null
  #queue: Queued[] = []
  #draft: Change[] = []
  #pumping: Promise<void> | null = null
  #retry: ReturnType<typeof setTimeout> | undefined
  /** Told when the server confirms something after it was away. */
  onback: () => void = () => {}
  /** Told when an edit was refused: the document to go on with is another. */
  onrefused: () => void = () => {}

  constructor() {
    addEventListener('online', () => void this.pump())
    addEventListener('visibilitychange', () => void this.pump())
  }

  /** The revision that was confirmed last, and its day; none while edits wait. */
  get revision(): number | undefined {
    return this.waiting === 0 && this.#revision > 0 ? this.#revision : undefined
  }
  get day(): string | undefined {
    return this.revision === undefined ? undefined : this.#updated?.slice(0, 10)
  }

  get words(): string {
    const edits = `${this.waiting} ${this.waiting === 1 ? 'edit' : 'edits'} waiting`
    const unsafe = memory.trouble ? `, and nothing can be remembered here: ${memory.trouble}` : ''
    if (this.conflict) return 'not kept: changed elsewhere'
    if (this.trouble) return `not kept: ${this.trouble}, ${edits}${unsafe}`
    if (this.refused.length > 0)
      return `not kept: ${this.refused.length} ${this.refused.length === 1 ? 'edit' : 'edits'} refused`
    if (this.waiting > 0) return `keeping…${unsafe}`
    const kept = this.keptAt ? `kept ${time(this.keptAt)}` : ''
    return memory.trouble ? `${kept}; nothing can be remembered here: ${memory.trouble}` : kept
  }

  /** The document to go on with: what was confirmed, with the edits that wait. */
  get document(): Design {
    return withEdits(this.#base!, this.#queue)
  }

  /** Takes a design in hand; gives the document to go on with, which may hold edits that were never confirmed. */
  async open(answer: DesignAnswer): Promise<Design> {
    const left = new Left(answer.id, await windowName)
    this.#id = answer.id
    this.#left = left
    this.conflict = this.trouble = null
    this.locked = false
    this.#draft = []
    this.#confirmed(answer)
    const before = left.read()
    const edits = [
      ...(before?.edits ?? []),
      ...(before?.draft.length ? [{ changes: before.draft, at: before.at }] : []),
    ]
    this.refused = edits.filter((e) => e.refused)
    this.#queue = edits.filter((e) => !e.refused).map((e) => ({ ...e, ready: true }))
    if (this.#queue.length > 0 && before!.revision !== answer.revision) {
      const base = left.base() ?? answer.design
      // The answer to the first may have been lost on its way here.
      if (keptAs(withEdits(base, this.#queue.slice(0, 1)), answer.design)) this.#queue.shift()
      else {
        // Until the user has chosen, the edits go on from the state they were made on.
        this.#revision = before!.revision
        this.#base = base
        this.#collide(answer, this.document)
      }
    }
    this.#remember()
    void this.#look(answer.id)
    const mine = this.conflict as { mine: Design } | null
    if (mine) return mine.mine
    void this.pump()
    return this.document
  }

  /** What windows left that are no longer open. */
  async #look(id: string) {
    const own = await windowName
    const offers: Offer[] = []
    for (const name of windowsOf(id)) {
      if (name === own || (await isOpen(name))) continue
      const left = new Left(id, name)
      const waiting = left.read()
      const count = (waiting?.edits.length ?? 0) + (waiting?.draft.length ? 1 : 0)
      if (count > 0) offers.push({ left, count, at: new Date(waiting!.at) })
    }
    if (this.#id === id) this.offers = offers
  }

  /** The edits of a closed window become this window's; gives the document to go on with. */
  takeUp(offer: Offer): Design {
    const waiting = offer.left.read()
    const base = offer.left.base()
    if (waiting) {
      const edits = [...waiting.edits, ...(waiting.draft.length ? [{ changes: waiting.draft, at: waiting.at }] : [])]
      const fresh = edits.filter((e) => !e.refused).map((e) => ({ ...e, ready: true }))
      this.refused = [...this.refused, ...edits.filter((e) => e.refused)]
      // On another state than the one they were made on they may mean something else: that is for the user to see.
      if (waiting.revision === this.#revision && this.#queue.length === 0) this.#queue = fresh
      else if (fresh.length > 0) {
        const theirs = {
          id: this.#id!,
          revision: this.#revision,
          updatedUtc: this.keptAt!.toISOString(),
          design: this.#base!,
          canUndo: this.canUndo,
          canRedo: this.canRedo,
        }
        // It stays where it is until the user has chosen.
        this.#collide(theirs, withEdits(base ?? this.document, fresh), offer)
        this.offers = this.offers.filter((o) => o !== offer)
        return this.conflict!.mine
      }
    }
    this.letGo(offer)
    this.#remember()
    void this.pump()
    return this.document
  }

  letGo(offer: Offer) {
    offer.left.forget()
    this.offers = this.offers.filter((o) => o !== offer)
  }

  async close() {
    // What waits is remembered: a server that hangs does not keep anybody here.
    await Promise.race([this.#pumping, new Promise((later) => setTimeout(later, 1000))])
    clearTimeout(this.#retry)
    this.#id = this.#left = this.#base = null
    this.#queue = []
    this.#draft = []
    this.waiting = 0
    this.refused = []
    this.offers = []
    this.conflict = null
  }

  /** What is typed and not yet committed, so that a reload finds it. */
  draft(changes: Change[]) {
    if (changes.length === 0 && this.#draft.length === 0) return
    this.#draft = changes
    this.#remember()
  }

  /** One commit: one step of undo. It is remembered at once and sent when it is released. */
  hold(changes: Change[]): Edit {
    const edit: Queued = { changes, at: Date.now(), ready: false }
    this.#queue.push(edit)
    this.#draft = []
    if (this.conflict) this.conflict = { ...this.conflict, mine: withChanges(this.conflict.mine, changes) }
    this.#remember()
    return edit
  }

  release(edits: Edit[]): Promise<void> {
    for (const edit of edits) (edit as Queued).ready = true
    return this.pump()
  }

  /** Puts an edit aside that was refused, with the reason. */
  refuse(edit: Edit, { message, faults }: Refused) {
    this.#queue = this.#queue.filter((e) => e !== edit)
    this.refused = [...this.refused, { changes: edit.changes, at: edit.at, refused: faults[0]?.reason ?? message }]
    this.#remember()
  }

  /** A refused edit is forgotten. */
  forgive(edit: Edit) {
    this.refused = this.refused.filter((e) => e !== edit)
    this.#remember()
  }

  pump(): Promise<void> {
    this.#pumping ??= this.#send().finally(() => (this.#pumping = null))
    return this.#pumping
  }

  async #send() {
    clearTimeout(this.#retry)
    const id = this.#id
    while (id && id === this.#id && this.#queue[0]?.ready && !this.conflict) {
      const edit = this.#queue[0]
      const doc = withChanges(this.#base!, edit.changes)
      const slow = setTimeout(() => (this.trouble = 'the server does not answer yet'), SOON_MS)
      try {
        const answer = await api.replace(id, this.#revision, doc)
        if (id !== this.#id) return
        this.#confirmed(answer)
        this.#done(edit)
      } catch (e) {
        if (id !== this.#id) return
        if (!(await this.#failed(id, edit, doc, e))) return
      } finally {
        clearTimeout(slow)
      }
    }
  }

  /** Whether to go on with the next one. */
  async #failed(id: string, edit: Queued, doc: Design, e: unknown): Promise<boolean> {
    const status = e instanceof Refused ? e.status : 0
    if (status === 412) return this.#meet(id, edit, doc)
    if (status === 400 || status === 413 || status === 415) {
      const wasAway = this.trouble !== null
      this.trouble = null
      this.locked = false
      this.refuse(edit, e as Refused)
      if (wasAway) this.onback()
      this.onrefused()
      return true
    }
    if (status === 404) {
      this.trouble = 'the design was taken off the shelf'
      return false
    }
    this.locked = status === 401
    this.trouble = this.locked
      ? 'this device is not known any more'
      : status === 503 || status === 422
        ? lower((e as Refused).message)
        : 'server away'
    if (!this.locked) this.#retry = setTimeout(() => void this.pump(), RETRY_MS)
    return false
  }

  /** A stale write: the answer to our own may have been lost on the way, or somebody else was faster. */
  async #meet(id: string, edit: Queued, doc: Design): Promise<boolean> {
    try {
      const theirs = await api.design(id)
      if (id !== this.#id) return false
      if (keptAs(doc, theirs.design)) {
        this.#confirmed(theirs)
        this.#done(edit)
        return true
      }
      this.#collide(theirs, this.document)
    } catch {
      this.trouble = 'server away'
      this.#retry = setTimeout(() => void this.pump(), RETRY_MS)
    }
    return false
  }

  #collide(theirs: DesignAnswer, mine: Design, offer: Offer | null = null) {
    this.conflict = { theirs, mine, offer }
    this.asking = true
  }

  #done(edit: Queued) {
    const wasAway = this.trouble !== null
    this.#queue = this.#queue.filter((e) => e !== edit)
    this.trouble = null
    this.locked = false
    this.#remember()
    if (wasAway) this.onback()
  }

  #confirmed(answer: DesignAnswer) {
    this.#base = answer.design
    this.#revision = answer.revision
    this.keptAt = new Date(answer.updatedUtc)
    this.#updated = answer.updatedUtc
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
    this.#chosen()
    this.#confirmed(theirs)
    this.#remember()
    return theirs.design
  }

  /** Mine is kept as the newest state, on top of theirs; theirs is one undo away. */
  putMineOnTop(): Promise<void> {
    const { theirs, mine } = this.conflict!
    this.#confirmed(theirs)
    this.#queue = [{ changes: changesBetween(theirs.design, mine), at: Date.now(), ready: true }]
    this.#chosen()
    this.#remember()
    return this.pump()
  }

  #chosen() {
    this.conflict?.offer?.left.forget()
    this.conflict = null
  }

  /** Mine becomes a design of its own; theirs stands here. Gives the copy's id. */
  async keepMineAsCopy(): Promise<string> {
    const { mine } = this.conflict!
    const copy = await api.add({ ...mine, name: `${[...mine.name].slice(0, 74).join('')}, mine` })
    this.takeTheirs()
    return copy.id
  }

  #remember() {
    this.waiting = this.#queue.length + (this.#draft.length > 0 ? 1 : 0)
    if (!this.#left || !this.#base) return
    const edits: Edit[] = [...this.refused, ...this.#queue.map(({ changes, at }) => ({ changes, at }))]
    this.#left.write({ revision: this.#revision, edits, draft: this.#draft, at: Date.now() }, this.#base)
  }
}

function lower(sentence: string): string {
  return sentence.charAt(0).toLowerCase() + sentence.slice(1).replace(/\.$/, '')
}

export function time(date: Date): string {
  return date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

export const keeper = new Keeper()
