import { api } from '../../api/client'
import type { BankAtLoad } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'

/** What is tried on the bank without changing it: another load, a string that drops out, a conductor pointed at. */
class BankBench {
  /** The bank's current that is looked at [A]; null: full load. */
  load = $state<number | null>(null)
  result = $state.raw<BankAtLoad | null>(null)
  /** The string whose loss is played (from 1), and how far. */
  out = $state<number | null>(null)
  step = $state(0)
  /** The unit whose menu is open. */
  unit = $state.raw<{ string: number; unit: number } | null>(null)
  /** The conductor pointed at, by its place in the Evaluation. */
  conductor = $state<number | null>(null)
  /** How the bank is looked at. */
  view = $state<'currents' | 'rundown' | 'stands'>('currents')

  get drop() {
    return this.out === null ? null : (this.result?.dropOuts.find((d) => d.string === this.out) ?? null)
  }

  /** Amperes of each string as they are looked at; null at full load with all in, where the Evaluation's own figures stand. */
  get currents(): number[] | null {
    const drop = this.drop
    if (drop) return drop.steps[Math.min(this.step, drop.steps.length - 1)].currentsA
    return this.load === null ? null : (this.result?.currentsA ?? null)
  }

  /** Whether a string has opened by the step that is shown. */
  isOut(string: number): boolean {
    const drop = this.drop
    return drop !== null && drop.steps.slice(0, this.step + 1).some((s) => s.dropped === string)
  }

  /** Asks for what the bank does at this load. */
  ask = newest(async () => {
    this.result = await orBefore(session.worked, this.result, (design) =>
      api.bankAtLoad(design, session.bankIndex, this.load ?? undefined),
    )
  })

  play(string: number) {
    this.out = string
    this.step = 0
  }

  reset() {
    this.conductor = null
    this.unit = null
    this.result = null
    this.out = null
    this.step = 0
    this.load = null
  }
}

export const bench = new BankBench()
