import { memory } from './memory.svelte'

const KEY = 'inky-badger.theme'

class Theme {
  night = $state(memory.read(KEY) === 'night')

  constructor() {
    this.#show()
  }

  toggle() {
    this.night = !this.night
    memory.write(KEY, this.night ? 'night' : 'day')
    this.#show()
  }

  #show() {
    document.documentElement.dataset.theme = this.night ? 'badger-night' : 'badger-day'
  }
}

export const theme = new Theme()
