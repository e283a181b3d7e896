import { api } from '../../api/client'
import type { LibraryLoad, Load } from '../../api/client'

/** The library of loads: typical ones, and the user's own. Fetched once, and again when the own ones change. */
class Library {
  typical = $state.raw<LibraryLoad[]>([])
  own = $state.raw<LibraryLoad[]>([])
  failure = $state<string | null>(null)

  async fetch() {
    try {
      const answer = await api.loadLibrary()
      this.typical = answer.typical
      this.own = answer.own
      this.failure = null
    } catch {
      this.failure = 'The library does not answer: a load of one’s own can be added all the same.'
    }
  }

  /** Keeps a load for other designs, over an own one of the same name; says how it went. */
  async keep(load: Load): Promise<string> {
    if (!load.name.trim()) return 'give it a name first'
    const key = this.own.find((l) => l.load.name === load.name)?.key ?? `own-${Date.now().toString(36)}`
    try {
      await api.keepLoad(key, load)
      await this.fetch()
      return 'kept in the library'
    } catch (e) {
      return e instanceof Error ? e.message : 'not kept'
    }
  }

  async drop(key: string) {
    await api.dropLoad(key)
    await this.fetch()
  }

  /** Those whose name, group or other words begin with, or hold, every word typed; names that begin so first. */
  find(text: string): LibraryLoad[] {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean)
    const all = [...this.own, ...this.typical]
    const rank = (l: LibraryLoad) => {
      const name = l.load.name.toLowerCase()
      const whole = `${name} ${l.group} ${l.words}`
      if (!words.every((w) => whole.includes(w))) return -1
      if (words.length === 0) return 1
      return name.startsWith(words[0]) ? 3 : name.includes(words[0]) ? 2 : 1
    }
    return all
      .map((l, i) => ({ l, i, rank: rank(l) }))
      .filter((x) => x.rank > 0)
      .sort((a, b) => b.rank - a.rank || a.i - b.i)
      .map((x) => x.l)
  }
}

export const library = new Library()
