import { api } from '../../api/client'
import type { AcBoard, AcDrawing } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'
import type { AcPart, AcWire } from './acLayout'

/** The AC side as it is looked at: which state is turned to, which part is in hand. Nothing of that is kept. */
class Ac {
  /** How the station is looked at. */
  look = $state<'envelope' | 'ac'>('envelope')
  /** Why there is no answer, where nobody gave one. */
  away = $state<string | null>(null)
  answer = $state.raw<AcBoard | null>(null)
  state = $state(0)
  picked = $state<string | null>(null)

  #ask = newest(async () => {
    this.answer = await orBefore(
      session.worked,
      this.answer,
      (design) => api.ac(design),
      (away) => (this.away = away),
    )
    if (this.state >= (this.answer?.states.length ?? 0)) this.state = 0
  })
  ask() {
    void this.#ask()
  }

  get drawing(): AcDrawing {
    return session.design!.acSide
  }
  get part(): AcPart | null {
    return this.drawing.parts.find((p) => p.id === this.picked) ?? null
  }

  /** Turns a switch to its next position; the others stay. */
  turn(id: string, to?: number) {
    const board = this.answer
    const n = board?.switches.findIndex((s) => s.part === id) ?? -1
    const here = board?.states[this.state]
    if (!board || !here || n < 0) return
    const next = to ?? (here.positions[n] % board.switches[n].positions.length) + 1
    const at = board.states.findIndex((s) => s.positions.every((p, i) => p === (i === n ? next : here.positions[i])))
    if (at >= 0) this.state = at
  }

  put(drawing: Partial<AcDrawing>) {
    session.edit({ path: '/acSide', value: { ...this.drawing, ...drawing } }, true)
  }
  change(id: string, part: Partial<AcPart>) {
    this.put({ parts: this.drawing.parts.map((p) => (p.id === id ? { ...p, ...part } : p)) })
  }
  take(id: string) {
    this.put({
      parts: this.drawing.parts.filter((p) => p.id !== id),
      wires: this.drawing.wires.filter((w) => w.from !== id && w.to !== id),
    })
    this.picked = null
  }
  wire(index: number, change: Partial<AcWire> | null) {
    this.put({
      wires: change
        ? this.drawing.wires.map((w, i) => (i === index ? { ...w, ...change } : w))
        : this.drawing.wires.filter((_, i) => i !== index),
    })
  }
  add(kind: AcPart['kind']) {
    const taken = new Set(this.drawing.parts.map((p) => p.id))
    let n = 1
    while (taken.has(`${kind}-${n}`)) n++
    const id = `${kind}-${n}`
    const bank = session.bank!
    const part: AcPart = {
      id,
      kind,
      name: '',
      bank: kind === 'inverter' || kind === 'charger' ? bank.id : null,
      item: kind === 'inverter' ? (bank.inverters[0]?.id ?? null) : null,
      group: null,
      amps: kind === 'plug' ? 16 : null,
      watts: kind === 'generator' ? 2000 : null,
      positions: kind === 'transfer' ? ['mains', 'inverter'] : kind === 'selector' ? ['mains', 'off', 'inverter'] : [],
      loads: [],
      leg: 'both',
    }
    this.put({ parts: [...this.drawing.parts, part] })
    this.picked = id
  }

  async start(kind: 'pass-through' | 'separate-panel') {
    const drawing = await orBefore(session.worked, null, (design) => api.acStart(design, kind))
    if (drawing) session.edit({ path: '/acSide', value: drawing }, true)
    this.state = 0
    this.picked = null
  }
}

export const ac = new Ac()
