import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Design } from '../src/api/client'
import { memory } from '../src/app/memory.svelte'
import { Left, windowsOf, withEdits } from '../src/app/waiting'

/** A browser's storage with so much room, or none at all. */
class Storage {
  [key: string]: unknown
  constructor(room: number) {
    Object.defineProperty(this, 'room', { value: room })
    const hidden = (name: string, value: unknown) => Object.defineProperty(this, name, { value })
    hidden('getItem', (key: string) => (Object.hasOwn(this, key) ? this[key] : null))
    hidden('removeItem', (key: string) => delete this[key])
    hidden('setItem', (key: string, value: string) => {
      const used = Object.entries(this).reduce((sum, [k, v]) => sum + (k === key ? 0 : k.length + String(v).length), 0)
      if (used + key.length + value.length > room) throw new DOMException('full', 'QuotaExceededError')
      this[key] = value
    })
  }
}

const base = { name: 'bus', banks: [{ runs: [{ lengthM: 2.5 }] }] } as unknown as Design
const edit = (value: number) => ({ changes: [{ path: '/banks/0/runs/0/lengthM', value }], at: 1 })
const waiting = (...values: number[]) => ({ revision: 4, edits: values.map(edit), draft: [], at: 1 })

beforeEach(() => {
  vi.stubGlobal('localStorage', new Storage(100_000))
  memory.trouble = memory.setAside = null
})

describe('what waits', () => {
  it('is remembered as changes, with the document they go on from once', () => {
    const left = new Left('d1', 'w1')
    left.write(waiting(3), base)
    left.write(waiting(3, 4), base)
    expect(new Left('d1', 'w1').read()).toEqual(waiting(3, 4))
    expect(new Left('d1', 'w1').base()).toEqual(base)
    expect(Object.keys(localStorage)).toHaveLength(2)
    expect(windowsOf('d1')).toEqual(['w1'])
    expect(windowsOf('d')).toEqual([])
    const then = withEdits(base, waiting(3, 4).edits) as unknown as { banks: { runs: { lengthM: number }[] }[] }
    expect(then.banks[0].runs[0].lengthM).toBe(4)
  })

  it('leaves nothing behind once nothing waits', () => {
    const left = new Left('d1', 'w1')
    left.write(waiting(3), base)
    left.write(waiting(), base)
    expect(Object.keys(localStorage)).toEqual([])
    // And the document is remembered again with the next that waits.
    left.write(waiting(5), base)
    expect(new Left('d1', 'w1').base()).toEqual(base)
  })

  it('gives up the document before the edits where there is no room', () => {
    vi.stubGlobal('localStorage', new Storage(260))
    const left = new Left('d1', 'w1')
    left.write(waiting(3), { ...base, notes: 'n'.repeat(400) } as Design)
    expect(new Left('d1', 'w1').read()).toEqual(waiting(3))
    expect(JSON.parse(String(localStorage.getItem('inky-badger.waiting.d1.w1'))).edits).toHaveLength(1)
    expect(localStorage.getItem('inky-badger.base.d1.w1')).toBeNull()
  })
})

describe('a storage that does not serve', () => {
  it('is said to be full, and what was written is there for as long as the page lives', () => {
    vi.stubGlobal('localStorage', new Storage(20))
    expect(memory.write('k', 'v'.repeat(50))).toBe(false)
    expect(memory.trouble).toBe('this browser’s storage is full')
    expect(memory.read('k')).toBe('v'.repeat(50))
    expect(memory.keys()).toContain('k')
    expect(memory.write('k', 'v')).toBe(true)
    expect(memory.trouble).toBeNull()
    memory.forget('k')
    expect(memory.read('k')).toBeNull()
  })

  it('is said to be blocked, and nothing throws', () => {
    const blocked = new Proxy(
      {},
      {
        get: () => {
          throw new DOMException('blocked', 'SecurityError')
        },
      },
    )
    vi.stubGlobal('localStorage', blocked)
    expect(memory.read('k')).toBeNull()
    expect(memory.write('k', 'v')).toBe(false)
    expect(memory.trouble).toBe('this browser keeps nothing for this page')
    expect(memory.read('k')).toBe('v')
    memory.forget('k')
    expect(memory.keys()).not.toContain('k')
  })

  it('sets aside what cannot be read, unchanged, and says so', () => {
    for (const broken of [
      '{"revision": 3, "edi',
      '{"revision":"3","edits":[]}',
      '{"revision":3,"edits":[{"changes":[{}]}]}',
      'null',
    ]) {
      vi.stubGlobal('localStorage', new Storage(100_000))
      memory.setAside = null
      localStorage.setItem('inky-badger.waiting.d1.w1', broken)
      expect(new Left('d1', 'w1').read()).toBeNull()
      expect(memory.setAside).toContain('set aside')
      const aside = Object.keys(localStorage)
      expect(aside).toHaveLength(1)
      expect(aside[0]).toMatch(/^inky-badger\.set-aside\./)
      expect(localStorage.getItem(aside[0])).toBe(broken)
    }
  })
})
