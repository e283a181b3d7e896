import type { Change, Design } from '../api/client'
import { withChanges } from '../ui/pointer'
import { memory } from './memory.svelte'

/** One commit: what it changes of the document before it. A refused one says why, and stays until it is let go or tried again. */
export interface Edit {
  changes: Change[]
  at: number
  refused?: string
}

/** Edits of a window that the server has not confirmed, by the revision they begin at; what is typed and not yet committed. */
export interface Waiting {
  revision: number
  edits: Edit[]
  draft: Change[]
  at: number
}

const WAITING = 'inky-badger.waiting.'
/** The document the edits begin at, written once while any wait. */
const BASE = 'inky-badger.base.'

const isChange = (c: unknown) => typeof (c as Change)?.path === 'string'
const isEdit = (e: unknown) => Array.isArray((e as Edit)?.changes) && (e as Edit).changes.every(isChange)
const isWaiting = (w: unknown): w is Waiting => {
  const x = w as Waiting
  return (
    typeof x?.revision === 'number' && Array.isArray(x.edits) && x.edits.every(isEdit) && Array.isArray(x.draft ?? [])
  )
}
const isDesign = (d: unknown): d is Design => Array.isArray((d as Design)?.banks)

/** What one window left of one design. */
export class Left {
  constructor(
    readonly design: string,
    readonly window: string,
  ) {}

  /** The base as it was written last: most writes change the edits alone. */
  #written: Design | null = null

  get #key() {
    return `${WAITING}${this.design}.${this.window}`
  }
  get #base() {
    return `${BASE}${this.design}.${this.window}`
  }

  read(): Waiting | null {
    const waiting = memory.object(this.#key, isWaiting)
    return waiting && { ...waiting, draft: waiting.draft ?? [] }
  }

  base(): Design | null {
    return memory.object(this.#base, isDesign)
  }

  write(waiting: Waiting, base: Design) {
    if (waiting.edits.length === 0 && waiting.draft.length === 0) return this.forget()
    memory.write(this.#key, JSON.stringify(waiting))
    // Without the base the edits still say what they change; so it is the one to go where there is no room.
    if (base === this.#written) return
    const trouble = memory.trouble
    if (memory.write(this.#base, JSON.stringify(base))) this.#written = base
    else if (trouble === null) {
      memory.forget(this.#base)
      memory.write(this.#key, JSON.stringify(waiting))
    }
  }

  forget() {
    this.#written = null
    memory.forget(this.#key)
    memory.forget(this.#base)
  }
}

/** Windows that left something of a design. */
export function windowsOf(design: string): string[] {
  const prefix = `${WAITING}${design}.`
  return memory
    .keys()
    .filter((k) => k.startsWith(prefix))
    .map((k) => k.slice(prefix.length))
}

export function withEdits(design: Design, edits: Edit[]): Design {
  return edits.reduce((doc, edit) => withChanges(doc, edit.changes), design)
}
