import { beforeEach, expect, it, vi } from 'vitest'

/** A tab's own storage; a duplicated tab begins with a copy. */
class Tab {
  constructor(readonly kept = new Map<string, string>()) {}
  getItem = (key: string) => this.kept.get(key) ?? null
  setItem = (key: string, value: string) => void this.kept.set(key, value)
  twin = () => new Tab(new Map(this.kept))
}

/** The module as a window of its own loads it. */
async function open(tab: Tab) {
  vi.resetModules()
  vi.stubGlobal('sessionStorage', tab)
  return await import('../src/app/windows')
}

beforeEach(() => {
  vi.stubGlobal('window', globalThis)
  // A page that is not from this machine has no locks: windows ask each other.
  vi.stubGlobal('navigator', {})
})

it('a twin takes another name, and both are known to be open', async () => {
  const tab = new Tab()
  const first = await open(tab)
  const name = await first.windowName
  expect(name).toMatch(/^[a-z0-9]{4,}$/)
  expect(tab.getItem('inky-badger.window')).toBe(name)

  const twin = await open(tab.twin())
  const other = await twin.windowName
  expect(other).not.toBe(name)
  expect(await first.isOpen(other)).toBe(true)
  expect(await twin.isOpen(name)).toBe(true)
  expect(await first.isOpen('nobody')).toBe(false)
})

it('a window whose storage is blocked has a name all the same', async () => {
  const blocked = new Proxy({} as Tab, {
    get: () => {
      throw new DOMException('blocked', 'SecurityError')
    },
  })
  expect(await (await open(blocked)).windowName).toMatch(/^[a-z0-9]{4,}$/)
})

it('with locks a name is held until its window is gone', async () => {
  const held = new Map<string, Promise<unknown>>()
  const waiting = (signal: AbortSignal) =>
    new Promise((_, no) => signal.addEventListener('abort', () => no(signal.reason as Error)))
  const locks = {
    request: async (name: string, { signal }: { signal: AbortSignal }, take: () => Promise<unknown>) => {
      if (held.has(name)) await Promise.race([held.get(name), waiting(signal)])
      held.set(name, take())
      return held.get(name)
    },
    query: () => Promise.resolve({ held: [...held.keys()].map((name) => ({ name })), pending: [] }),
  }
  vi.stubGlobal('navigator', { locks })
  const tab = new Tab()
  const first = await open(tab)
  const name = await first.windowName
  const twin = await open(tab.twin())
  expect(await twin.windowName).not.toBe(name)
  expect(await twin.isOpen(name)).toBe(true)
  held.delete(`inky-badger.window.${name}`)
  expect(await twin.isOpen(name)).toBe(false)
  // A reload of the first finds its name free again.
  expect(await (await open(tab)).windowName).toBe(name)
})
