import type { Station } from '../api/client'
import { stations } from '../stations'

/**
 * The address after the hash: `#/shelf`, `#/new`, or `#/d/<id>/` and a station, `tape`, `summary`, `findings`, `builds`, `rehearse`,
 * `sheets`, `bring-up`, `log`, `rules` or `practice`.
 */
class Route {
  hash = $state(location.hash)

  /** Where one came from to the house rules. */
  #back = ''

  constructor() {
    addEventListener('hashchange', () => {
      if (!this.rules) this.#back = this.hash
      this.hash = location.hash
    })
  }

  get parts() {
    return this.hash.replace(/^#\//, '').split('/')
  }
  get design(): string | null {
    return this.parts[0] === 'd' ? this.parts[1] : null
  }
  get tape() {
    return this.design !== null && this.parts[2] === 'tape'
  }
  /** The one page for print. */
  get summary() {
    return this.design !== null && this.parts[2] === 'summary'
  }
  /** All findings of the design. */
  get findings() {
    return this.design !== null && this.parts[2] === 'findings'
  }
  get builds() {
    return this.design !== null && this.parts[2] === 'builds'
  }
  get rehearse() {
    return this.design !== null && this.parts[2] === 'rehearse'
  }
  /** All papers, and how far it is built. */
  get sheets() {
    return this.design !== null && this.parts[2] === 'sheets'
  }
  /** Proving it with the meter. */
  get bringUp() {
    return this.design !== null && this.parts[2] === 'bring-up'
  }
  /** The real against the plan. */
  get log() {
    return this.design !== null && this.parts[2] === 'log'
  }
  /** The schools side by side. */
  get rules() {
    return this.design !== null && this.parts[2] === 'rules'
  }
  /** The rule that is open there. */
  get rule(): string | null {
    return this.rules ? (this.parts[3] ?? null) : null
  }
  /** Learning to see it. */
  get practice() {
    return this.design !== null && this.parts[2] === 'practice'
  }
  /** What of it, and which word of the job. */
  get practising() {
    return this.practice ? { view: this.parts[3] ?? 'find', word: this.parts[4] ?? null } : null
  }
  /** Back from the house rules, to where one was. */
  get back() {
    return this.#back.startsWith(`#/d/${this.design}/`) ? this.#back : `#/d/${this.design}/bank`
  }
  /** The key a device's link carries. */
  get key(): string | null {
    return this.parts[0] === 'key' ? (this.parts[1] ?? '') : null
  }
  /** What a new design is for. */
  get fresh() {
    return this.parts[0] === 'new'
  }
  get shelf() {
    return this.parts[0] === 'shelf'
  }
  get station(): Station {
    return stations.find((s) => s.id === this.parts[2])?.id ?? 'loads'
  }

  /** Where a device goes on once it has given its key. */
  #before = '#/shelf'

  toKey() {
    if (this.key === null) this.#before = this.hash || '#/shelf'
    this.go('#/key')
  }
  fromKey() {
    this.go(this.#before)
  }

  go(hash: string) {
    location.hash = hash
    this.hash = location.hash
  }
  toStation(id: string, station: Station) {
    this.go(`#/d/${id}/${station}`)
  }
}

export const route = new Route()
