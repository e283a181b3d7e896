import { api, Refused } from '../api/client'
import type { Change, Design, Equation, Evaluation, Fault, Reference, Station } from '../api/client'
import { stationOf } from '../stations'
import { at, changesBetween, withChanges } from '../ui/pointer'
import { show } from '../ui/quantity'
import { keeper } from './keeper.svelte'
import { memory } from './memory.svelte'
import type { Offer } from './keeper.svelte'
import type { Edit } from './waiting'
import type { Shown, UnitSystem } from '../ui/quantity'

const PAUSE_MS = 800

/** A commit waits so long for what follows from it, which may refuse it; then it is sent, and the server judges it. */
const PATIENCE_MS = 1500
/** An answer that did not come is asked for again after so long. */
const AGAIN_MS = 2000

/** A variant of the design: what it is called, and the changes that make it. */
export interface Aside {
  label: string
  changes: Change[]
}

/** The design in hand: the document as it is typed, what follows from it, and how far it is kept. */
class Session {
  id = $state<string | null>(null)
  /** The bank in hand. */
  bankIndex = $state(0)
  design = $state.raw<Design | null>(null)
  evaluation = $state.raw<Evaluation | null>(null)
  reference = $state.raw<Reference | null>(null)
  station = $state<Station>('loads')
  faults = $state.raw<Fault[]>([])
  failure = $state<string | null>(null)

  /** Figure whose working is open, and the way that led to it. */
  selected = $state<string | null>(null)
  trail = $state.raw<string[]>([])
  equation = $state.raw<Equation | null>(null)
  /** A working of something that is asked apart and no figure of the Evaluation, such as a run-down. */
  presented = $state.raw<Equation | null>(null)
  /** The design with changes made that are only being looked at, such as another rung of the ladder; its working is open then. */
  aside = $state.raw<Aside | null>(null)

  /** The last document that was accepted; the figures belong to it. */
  worked: Design | null = null
  /** The newest document that was not refused, and the one whose commits are all handed over. */
  #draft: Design | null = null
  #committed: Design | null = null
  /** Commits that nothing has been heard of yet. */
  #held: { edit: Edit; design: Design }[] = []
  #evaluating: Promise<void> | null = null
  #again = false
  #timer: ReturnType<typeof setTimeout> | undefined
  #retry: ReturnType<typeof setTimeout> | undefined

  get bank() {
    return this.design?.banks[this.bankIndex] ?? null
  }
  get result() {
    return this.evaluation?.banks[this.bankIndex] ?? null
  }
  get base() {
    return `/banks/${this.bankIndex}`
  }
  get units(): UnitSystem {
    return this.design?.display.units ?? 'metric'
  }

  async open(id: string) {
    if (this.id) await this.close()
    this.reference ??= await api.reference()
    const answer = await api.design(id)
    this.id = answer.id
    this.bankIndex = 0
    keeper.onback = () => void this.evaluate()
    keeper.onrefused = () => this.#goOn()
    this.#hold(await keeper.open(answer))
    this.selected = null
    this.equation = null
    this.trail = []
    this.faults = []
    memory.write('inky-badger.last', id)
    await this.evaluate()
  }

  /** Keeps what waits, then lets go of the design. */
  async close() {
    void this.commit()
    void this.#release(this.#held)
    await keeper.close()
    this.id = null
    this.design = this.worked = this.evaluation = null
  }

  /** A figure's whole pointer: of the bank in hand where it says no other, or of all banks together. */
  full(pointer: string) {
    return pointer.startsWith('/banks') || pointer.startsWith('/site') ? pointer : this.base + pointer
  }

  figure(pointer: string): number | null {
    const value = at(this.evaluation, this.full(pointer))
    return typeof value === 'number' ? value : null
  }

  show(value: number, unit: string): Shown {
    return show(value, unit, this.units, this.design?.display.currency ?? '')
  }

  /**
   * Changes the document and works it out at once; it is stored on commit or after a pause, and while a hand drags only once it lets go:
   * one drag is one step of undo, however slow. Pointers without a bank get the one in hand.
   */
  edit(changes: Change[] | Change, commit = false, dragged = false) {
    if (!this.design) return
    const list = looked(
      this.design,
      (Array.isArray(changes) ? changes : [changes]).map((c) => ({
        ...c,
        path: c.path.startsWith('~') ? this.base + c.path.slice(1) : c.path,
      })),
    )
    this.design = withChanges(this.design, list)
    // A mend may make one bank of two.
    if (this.bankIndex >= this.design.banks.length) this.bankIndex = 0
    void this.evaluate()
    // Remembered before anything is answered.
    if (!commit) keeper.draft(changesBetween(this.#committed, this.design))
    clearTimeout(this.#timer)
    if (commit) void this.commit()
    else if (!dragged) this.#timer = setTimeout(() => void this.commit(), PAUSE_MS)
  }

  /** Asks for what follows. While an answer is on its way the newest state waits, and only that is asked for next. */
  evaluate(): Promise<void> {
    this.#again = true
    this.#evaluating ??= this.#work().finally(() => (this.#evaluating = null))
    return this.#evaluating
  }

  async #work() {
    while (this.#again) {
      this.#again = false
      const asked = this.design
      const before = this.#held.length
      if (!asked) return
      try {
        const aside = this.selected ? this.aside : null
        const answer = await api.evaluate(asked, (!aside && this.selected) || undefined)
        const variant = aside ? await api.evaluate(withChanges(asked, aside.changes), this.selected!) : answer
        if (this.design === null) return
        this.worked = this.#draft = asked
        this.evaluation = answer.evaluation
        this.equation = this.presented ?? variant.working?.[0] ?? null
        this.faults = []
        this.failure = null
        void this.#release(this.#heldBy(asked, before))
        // The first figure of an empty design opens its working by itself.
        const about = this.selected || this.presented ? undefined : this.#about()
        if (about) {
          this.selected = this.base + about
          this.#again = true
        }
      } catch (e) {
        if (e instanceof Refused && e.status === 400) {
          // The last good state stays; the field keeps what was typed and shows the reason.
          this.faults = e.faults
          const held = this.#heldBy(asked, before)
          if (held.length === 1 && this.design === asked) {
            // A commit that was refused is not lost with the field that was left: it stays, with its reason.
            this.#held = this.#held.filter((h) => h !== held[0])
            keeper.refuse(held[0].edit, e)
            this.design = this.#draft = this.#committed = keeper.document
          } else if (held.length === 0) {
            if (this.design === asked) this.design = this.#draft
            keeper.draft(changesBetween(this.#committed, this.design))
          }
          // Of several that nothing was heard of the server finds the one it refuses.
          else void this.#release(held)
        } else {
          this.#draft = asked
          void this.#release(this.#heldBy(asked, before))
          this.failure =
            e instanceof Refused && e.status === 401
              ? 'This device is not known any more: give it the newest key. Your edits wait here.'
              : 'The server does not answer: figures are from before, your edits wait here.'
          if (!(e instanceof Refused)) this.#later()
        }
      }
    }
  }

  /** Asks again for what nobody answered; while edits wait, the keeper tells when somebody is back. */
  #later() {
    clearTimeout(this.#retry)
    this.#retry = setTimeout(() => {
      if (this.failure && this.design && keeper.waiting === 0) void this.evaluate()
    }, AGAIN_MS)
  }

  /** Hands what was typed to the keeper. It is remembered at once, and sent once it is known not to be refused. */
  async commit() {
    clearTimeout(this.#timer)
    const design = this.design
    if (!this.id || !design) return
    const changes = changesBetween(this.#committed, design)
    if (changes.length > 0) {
      this.#held.push({ edit: keeper.hold(changes), design })
      this.#committed = design
    } else keeper.draft([])
    const held = [...this.#held]
    if (this.worked !== design && this.#evaluating)
      await Promise.race([this.#evaluating, new Promise((later) => setTimeout(later, PATIENCE_MS))])
    await this.#release(held)
  }

  /** The commits that a document holds: those made on it, and those of before it was asked about. */
  #heldBy(design: Design, before: number) {
    return this.#held.slice(0, Math.max(before, this.#held.findLastIndex((h) => h.design === design) + 1))
  }

  #release(held: { edit: Edit; design: Design }[]): Promise<void> {
    const mine = held.filter((h) => this.#held.includes(h))
    this.#held = this.#held.filter((h) => !mine.includes(h))
    return keeper.release(mine.map((h) => h.edit))
  }

  /** The server refused an edit: the document goes on without it, with what was typed since. */
  #goOn() {
    const typed = changesBetween(this.#committed, this.design)
    const document = keeper.document
    this.#committed = document
    this.design = this.#draft = typed.length > 0 ? withChanges(document, typed) : document
    void this.evaluate()
  }

  /** A refused edit once more, on what stands now. */
  again(edit: Edit) {
    keeper.forgive(edit)
    this.edit(edit.changes, true)
  }

  /** Goes on with what a closed window left. */
  takeUp(offer: Offer) {
    return this.take(keeper.takeUp(offer))
  }

  /** Goes on with a document that is kept already. */
  #hold(design: Design) {
    if (this.bankIndex >= design.banks.length) this.bankIndex = 0
    this.design = this.worked = this.#draft = this.#committed = design
  }

  take(design: Design) {
    this.#hold(design)
    return this.evaluate()
  }

  async walk(step: 'undo' | 'redo') {
    await this.commit()
    const design = await keeper.walk(step)
    if (design) await this.take(design)
  }

  /** Opens the working of a figure of the Evaluation, or of a variant that is looked at. */
  select(pointer: string, deeper = false, aside: Aside | null = null) {
    const kin = deeper && this.presented ? this.#kin.find((e) => e.pointer === pointer) : undefined
    if (kin) {
      this.trail = [...this.trail, this.presented!.pointer]
      this.presented = this.equation = kin
      return
    }
    this.presented = null
    const full = this.full(pointer)
    this.trail = deeper && this.selected ? [...this.trail, this.selected] : []
    if (!deeper) this.aside = aside
    this.selected = full
    void this.evaluate()
  }

  /** Lets go of the working that is open. */
  release() {
    this.selected = null
    this.trail = []
    this.equation = this.presented = null
  }

  /** Workings that came with the one that is presented: they lead to each other. */
  #kin: readonly Equation[] = []

  /** Shows a working that came with its figure, and with others. */
  present(equation: Equation, kin: readonly Equation[] = []) {
    this.#kin = kin
    this.selected = null
    this.trail = []
    this.aside = null
    this.presented = this.equation = equation
  }

  /** Takes another bank of the design in hand. */
  toBank(index: number) {
    this.bankIndex = index
    this.arrive(this.station)
  }

  /** The figure a station is about, opened on arriving there. */
  arrive(station: Station) {
    this.station = station
    const about = this.#about()
    if (about) this.select(about)
    else {
      this.selected = null
      this.equation = this.presented = null
    }
  }

  #about(): string | undefined {
    return stationOf(this.station).leads.find((pointer) => this.figure(pointer) !== null)
  }

  back() {
    const to = this.trail.at(-1)
    if (!to) return
    this.trail = this.trail.slice(0, -1)
    const kin = this.presented ? this.#kin.find((e) => e.pointer === to) : undefined
    if (kin) {
      this.presented = this.equation = kin
      return
    }
    this.selected = to
    void this.evaluate()
  }

  reasonAt(pointer: string): string | null {
    return this.faults.find((f) => f.pointer === pointer)?.reason ?? null
  }

  /** The gravest grade of all that is found about a bank, in words. */
  markOfBank(id: string): 'wrong' | 'look' | 'fits' | 'none' {
    const found = this.evaluation?.findings.filter((f) => f.bank === id) ?? []
    if (found.some((f) => f.grade === 'danger' || f.grade === 'fault')) return 'wrong'
    if (found.some((f) => f.grade === 'caution')) return 'look'
    return this.evaluation?.banks.find((b) => b.id === id)?.bank ? 'fits' : 'none'
  }

  /** The gravest grade of a station's findings, in words. */
  mark(station: Station): 'wrong' | 'look' | 'fits' | 'none' {
    const result = this.result
    if (!result) return 'none'
    const here = this.evaluation!.findings.filter((f) => f.station === station && f.bank === result.id)
    if (here.some((f) => f.grade === 'danger' || f.grade === 'fault')) return 'wrong'
    if (here.some((f) => f.grade === 'caution')) return 'look'
    const worked = {
      loads: (result.energy?.energyBankWh ?? 0) > 0,
      voltage: result.currents,
      inverter: result.inverter,
      bank: result.bank,
      cables: result.mainRun,
      charging: (result.charging?.sources.length ?? 0) > 0,
    }[station]
    return worked ? 'fits' : 'none'
  }
}

/** A load of typical figures that somebody puts a figure into is assumed no longer. */
function looked(design: Design, changes: Change[]): Change[] {
  const more = changes.flatMap(({ path, value }) => {
    const match = /^(.*\/demand\/loads\/\d+)\/(watts|amps|hours|windows|quantity|duty|surgeWatts|states)$/.exec(path)
    return match && at(design, `${match[1]}/assumed`) === true && at(design, path) !== value
      ? [{ path: `${match[1]}/assumed`, value: false }]
      : []
  })
  return [...changes, ...more]
}

export const session = new Session()
