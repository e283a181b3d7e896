/** The browser's own storage, which may be full, blocked, or broken: nothing here ever throws. */
class Memory {
  /** Why this browser remembers nothing at the moment; null while it does. */
  trouble = $state<string | null>(null)
  /** What was found broken and set aside. */
  setAside = $state<string | null>(null)

  /** Stands in where the storage is blocked, for as long as the page lives. */
  #here = new Map<string, string>()

  read(key: string): string | null {
    try {
      return localStorage.getItem(key) ?? this.#here.get(key) ?? null
    } catch {
      this.trouble = 'this browser keeps nothing for this page'
      return this.#here.get(key) ?? null
    }
  }

  /** False where it is not remembered beyond this page. */
  write(key: string, value: string): boolean {
    try {
      localStorage.setItem(key, value)
      this.#here.delete(key)
      this.trouble = null
      return true
    } catch (e) {
      const full = e instanceof DOMException && e.name === 'QuotaExceededError'
      this.trouble = full ? 'this browser’s storage is full' : 'this browser keeps nothing for this page'
      this.#here.set(key, value)
      return false
    }
  }

  forget(key: string) {
    this.#here.delete(key)
    try {
      localStorage.removeItem(key)
    } catch {
      // Then it was never there.
    }
  }

  keys(): string[] {
    try {
      return [...new Set([...Object.keys(localStorage), ...this.#here.keys()])]
    } catch {
      return [...this.#here.keys()]
    }
  }

  /** An entry as an object of its kind; one that is broken is set aside under another name, and said. */
  object<T>(key: string, is: (value: unknown) => value is T): T | null {
    const text = this.read(key)
    if (text === null) return null
    try {
      const value: unknown = JSON.parse(text)
      if (is(value)) return value
    } catch {
      // Set aside below.
    }
    this.write(`inky-badger.set-aside.${Date.now()}`, text)
    this.forget(key)
    this.setAside =
      'Something this browser remembered could not be read. It was set aside in its storage; what was kept is not touched by that.'
    return null
  }
}

export const memory = new Memory()
