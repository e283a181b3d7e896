import { api } from '../../api/client'
import type { ChargedDay, Charging, Climate } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'

export type ChargeDialog = { what: 'source'; index: number } | { what: 'add' } | { what: 'place' } | null

/** What is looked at of charging: a month, its day, a device's card, a threshold; nothing of it is kept. */
class ChargeBench {
  /** The month picked, 1 to 12; null: the one that misses most. */
  #month = $state<number | null>(null)
  day = $state.raw<ChargedDay | null>(null)
  dialog = $state<ChargeDialog>(null)
  /** The device whose card is open; null: the one that is wrong first, else the first. */
  #card = $state<string | null>(null)
  /** The setting that is pointed at, on the card and on the scale alike. */
  setting = $state<string | null>(null)
  climates = $state.raw<Climate[]>([])

  get charging(): Charging | null {
    return session.result?.charging ?? null
  }

  /** 0 to 11; null while no month can be worked out. */
  get month(): number | null {
    const c = this.charging
    return c === null || c.months.length === 0 ? null : this.#month !== null ? this.#month - 1 : (c.worst ?? 0)
  }

  get card() {
    const cards = this.charging?.cards ?? []
    return (
      cards.find((card) => card.device === this.#card) ??
      cards.find((card) => card.rows.some((r) => r.must)) ??
      cards[0]
    )
  }

  pickMonth(month: number) {
    this.#month = ((month - 1 + 12) % 12) + 1
    void this.ask()
    if (session.figure(`/charging/months/${this.#month - 1}/withoutPlugWh`) !== null)
      session.select(`/charging/months/${this.#month - 1}/withoutPlugWh`)
  }

  pickCard(device: string, setting: string | null = null) {
    this.#card = device
    this.setting = setting === null ? null : `${device} ${setting}`
  }

  /** Asks for the day that is shown; while an answer is on its way the newest state waits. */
  ask = newest(async () => {
    this.day = await orBefore(session.worked, this.day, (design) =>
      api.chargedDay(design, session.bankIndex, this.#month ?? undefined),
    )
  })

  async fetchClimates() {
    if (this.climates.length === 0) this.climates = await api.climates().catch(() => [])
  }

  reset() {
    this.#month = null
    this.#card = null
    this.setting = null
    this.day = null
    this.dialog = null
  }
}

export const bench = new ChargeBench()
