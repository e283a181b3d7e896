import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Design, DesignAnswer } from '../src/api/client'

/** A server with one design on its shelf, and what it makes of what it is sent. */
const server = vi.hoisted(() => ({
  design: {} as Record<string, unknown>,
  revision: 1,
  sent: [] as number[],
  added: [] as { name: string }[],
  /** What the next replacements end with, one after the other; null: they are kept. */
  ends: [] as (null | 'away' | 'lost' | { status: number; message: string; reason?: string })[],
  answersDesign: true,
  open: [] as string[],
}))

vi.mock('../src/app/windows', () => ({
  windowName: Promise.resolve('mine'),
  isOpen: (name: string) => Promise.resolve(server.open.includes(name)),
}))
vi.mock('../src/api/client', () => {
  class Refused extends Error {
    constructor(
      readonly status: number,
      message: string,
      readonly faults: { reason: string }[] = [],
    ) {
      super(message)
    }
  }
  const answer = () => ({
    id: 'd1',
    revision: server.revision,
    updatedUtc: '2026-03-04T05:06:00Z',
    design: structuredClone(server.design),
    canUndo: server.revision > 1,
    canRedo: false,
  })
  const keep = (design: unknown) => {
    server.design = structuredClone(design) as Record<string, unknown>
    server.revision++
    return answer()
  }
  return {
    Refused,
    api: {
      replace: (_: string, revision: number, design: unknown) => {
        server.sent.push(revision)
        const end = server.ends.shift() ?? null
        if (end === 'away') return Promise.reject(new Error('The server does not answer.'))
        if (end === 'lost') {
          keep(design)
          return Promise.reject(new Error('The server does not answer.'))
        }
        if (end) return Promise.reject(new Refused(end.status, end.message, end.reason ? [{ reason: end.reason }] : []))
        if (revision !== server.revision) return Promise.reject(new Refused(412, 'stale'))
        return Promise.resolve(keep(design))
      },
      design: () => (server.answersDesign ? Promise.resolve(answer()) : Promise.reject(new Error('away'))),
      undo: (_: string, revision: number) =>
        revision === server.revision
          ? Promise.resolve(keep({ ...server.design, name: 'before' }))
          : Promise.reject(new Refused(412, 'stale')),
      redo: () => Promise.reject(new Error('away')),
      add: (design: { name: string }) => {
        server.added.push(design)
        return Promise.resolve({ id: 'd2' })
      },
    },
  }
})

class Storage {
  [key: string]: unknown
  constructor() {
    const hidden = (name: string, value: unknown) => Object.defineProperty(this, name, { value })
    hidden('getItem', (key: string) => (Object.hasOwn(this, key) ? this[key] : null))
    hidden('removeItem', (key: string) => delete this[key])
    hidden('setItem', (key: string, value: string) => (this[key] = value))
  }
}

vi.stubGlobal('addEventListener', vi.fn())
const { keeper } = await import('../src/app/keeper.svelte')
const { memory } = await import('../src/app/memory.svelte')
const { Left } = await import('../src/app/waiting')

const bus = { name: 'bus', banks: [{ runs: [{ lengthM: 2.5 }] }] }
const length = (value: number) => [{ path: '/banks/0/runs/0/lengthM', value }]
const name = (value: string) => [{ path: '/name', value }]
const kept = () => server.design as unknown as typeof bus
const answer = (): DesignAnswer =>
  ({
    id: 'd1',
    revision: server.revision,
    updatedUtc: '2026-03-04T05:06:00Z',
    design: structuredClone(server.design),
    canUndo: false,
    canRedo: false,
  }) as unknown as DesignAnswer
const commit = (changes: ReturnType<typeof name> | ReturnType<typeof length>) => keeper.release([keeper.hold(changes)])

const back = vi.fn()
const refusedOne = vi.fn()

beforeEach(async () => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', new Storage())
  memory.trouble = memory.setAside = null
  Object.assign(server, { design: structuredClone(bus), revision: 4, sent: [], added: [], ends: [], open: [] })
  server.answersDesign = true
  keeper.onback = back
  keeper.onrefused = refusedOne
  await keeper.open(answer())
})
afterEach(async () => {
  const closed = keeper.close()
  await vi.advanceTimersByTimeAsync(1500)
  await closed
  vi.useRealTimers()
  vi.clearAllMocks()
})

describe('keeping the design in hand', () => {
  it('sends one edit after the other, each on the revision before it', async () => {
    const edits = [keeper.hold(length(3)), keeper.hold(name('van'))]
    expect(keeper.waiting).toBe(2)
    expect(keeper.words).toBe('keeping…')
    await keeper.release(edits)
    expect(server.sent).toEqual([4, 5])
    expect(kept()).toEqual({ name: 'van', banks: [{ runs: [{ lengthM: 3 }] }] })
    expect(keeper.waiting).toBe(0)
    expect(keeper.words).toMatch(/^kept \d\d:06$/)
    expect(keeper.revision).toBe(6)
    expect(keeper.day).toBe('2026-03-04')
    expect(Object.keys(localStorage)).toEqual([])
  })

  it('keeps back what is not ready, and what comes after it', async () => {
    const first = keeper.hold(length(3))
    await commit(name('van'))
    expect(server.sent).toEqual([])
    expect(keeper.document.name).toBe('van')
    await keeper.release([first])
    expect(server.sent).toEqual([4, 5])
  })

  it('waits out a server that is away, says so, and tells when it is back', async () => {
    server.ends = ['away', 'away']
    await commit(length(3))
    expect(keeper.trouble).toBe('server away')
    expect(keeper.words).toBe('not kept: server away, 1 edit waiting')
    expect(keeper.revision).toBeUndefined()
    expect(new Left('d1', 'mine').read()!.edits).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(2000)
    expect(back).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(2000)
    expect(server.sent).toEqual([4, 4, 4])
    expect(back).toHaveBeenCalledOnce()
    expect(keeper.trouble).toBeNull()
    expect(kept().banks[0].runs[0].lengthM).toBe(3)
  })

  it('does not send again what was kept and whose answer was lost', async () => {
    server.ends = ['lost']
    await commit(length(3))
    expect(keeper.trouble).toBe('server away')
    await vi.advanceTimersByTimeAsync(2000)
    // The second attempt is stale: what stands there is its own.
    expect(server.revision).toBe(5)
    expect(keeper.waiting).toBe(0)
    expect(keeper.conflict).toBeNull()
    expect(keeper.trouble).toBeNull()
  })

  it('puts aside what is refused and goes on with the rest', async () => {
    server.ends = [{ status: 400, message: 'not accepted', reason: 'must be 0 or more' }]
    const edits = [keeper.hold(length(-3)), keeper.hold(name('van'))]
    await keeper.release(edits)
    expect(keeper.refused.map((e) => e.refused)).toEqual(['must be 0 or more'])
    expect(keeper.words).toBe('not kept: 1 edit refused')
    expect(refusedOne).toHaveBeenCalledOnce()
    expect(kept()).toEqual({ name: 'van', banks: [{ runs: [{ lengthM: 2.5 }] }] })
    // It is there after a reload too, until it is let go.
    expect(new Left('d1', 'mine').read()!.edits[0].refused).toBe('must be 0 or more')
    keeper.forgive(keeper.refused[0])
    expect(keeper.words).toMatch(/^kept/)
    expect(Object.keys(localStorage)).toEqual([])
  })

  it.each([
    [404, 'gone', 'the design was taken off the shelf', false, false],
    [401, 'who', 'this device is not known any more', true, false],
    [503, 'The disk is full.', 'the disk is full', false, true],
    [422, 'It is of a newer version.', 'it is of a newer version', false, true],
  ])('after %i it says why, and tries again where that may help', async (status, message, trouble, locked, again) => {
    server.ends = [{ status, message }]
    await commit(length(3))
    expect(keeper.trouble).toBe(trouble)
    expect(keeper.locked).toBe(locked)
    await vi.advanceTimersByTimeAsync(2000)
    expect(server.sent).toHaveLength(again ? 2 : 1)
    expect(keeper.waiting).toBe(again ? 0 : 1)
  })

  it('remembers what is typed and not committed yet', async () => {
    keeper.draft(name('va'))
    expect(keeper.waiting).toBe(1)
    expect(new Left('d1', 'mine').read()!.draft).toEqual(name('va'))
    // A reload finds it, and sends it as an edit.
    await keeper.open(answer())
    await keeper.pump()
    expect(kept().name).toBe('va')
    keeper.draft([])
    expect(keeper.waiting).toBe(0)
  })

  it('takes nothing up from a design it was not made for', async () => {
    await keeper.open({ ...answer(), id: 'd9' })
    keeper.draft(name('va'))
    expect(new Left('d1', 'mine').read()).toBeNull()
    expect(new Left('d9', 'mine').read()!.draft).toEqual(name('va'))
  })
})

describe('when somebody else was faster', () => {
  const elsewhere = () => {
    server.design = { ...bus, name: 'theirs' }
    server.revision = 7
  }

  it('stops and asks, and goes on counting what is done here', async () => {
    elsewhere()
    await commit(length(3))
    expect(keeper.asking).toBe(true)
    expect(keeper.words).toBe('not kept: changed elsewhere')
    expect(keeper.conflict!.theirs.design.name).toBe('theirs')
    expect((keeper.conflict!.mine as unknown as typeof bus).banks[0].runs[0].lengthM).toBe(3)
    await commit(name('mine'))
    expect(keeper.conflict!.mine.name).toBe('mine')
    expect(server.sent).toEqual([4])
    expect(await keeper.walk('undo')).toBeNull()
  })

  it('theirs stands', async () => {
    elsewhere()
    await commit(length(3))
    expect(keeper.takeTheirs().name).toBe('theirs')
    expect(keeper.waiting).toBe(0)
    expect(keeper.conflict).toBeNull()
    await commit(length(9))
    expect(server.sent).toEqual([4, 7])
    expect(kept()).toEqual({ name: 'theirs', banks: [{ runs: [{ lengthM: 9 }] }] })
  })

  it('mine goes on top of theirs', async () => {
    elsewhere()
    await commit(length(3))
    await keeper.putMineOnTop()
    expect(server.sent).toEqual([4, 7])
    expect(kept()).toEqual({ name: 'bus', banks: [{ runs: [{ lengthM: 3 }] }] })
  })

  it('mine becomes a design of its own', async () => {
    server.design = { ...bus, name: 'n'.repeat(80) }
    await keeper.open(answer())
    elsewhere()
    await commit(length(3))
    expect(await keeper.keepMineAsCopy()).toBe('d2')
    expect(server.added[0].name).toBe(`${'n'.repeat(74)}, mine`)
    expect(keeper.conflict).toBeNull()
    expect(keeper.document.name).toBe('theirs')
  })

  it('tries again where it cannot see what stands there', async () => {
    elsewhere()
    server.answersDesign = false
    await commit(length(3))
    expect(keeper.trouble).toBe('server away')
    server.answersDesign = true
    await vi.advanceTimersByTimeAsync(2000)
    expect(keeper.asking).toBe(true)
  })

  it('is met at a reload too, by the state the edits were made on', async () => {
    server.ends = ['away']
    await commit(length(3))
    elsewhere()
    const document = (await keeper.open(answer())) as unknown as typeof bus
    expect(document).toEqual({ name: 'bus', banks: [{ runs: [{ lengthM: 3 }] }] })
    expect(keeper.conflict!.theirs.revision).toBe(7)
  })

  it('is no conflict at a reload where the first edit had been kept', async () => {
    server.ends = ['lost']
    await keeper.release([keeper.hold(length(3)), keeper.hold(name('van'))])
    await keeper.open(answer())
    await keeper.pump()
    expect(keeper.conflict).toBeNull()
    expect(kept()).toEqual({ name: 'van', banks: [{ runs: [{ lengthM: 3 }] }] })
    expect(keeper.waiting).toBe(0)
  })
})

describe('what a closed window left', () => {
  const left = (revision: number, window = 'other') => {
    const other = new Left('d1', window)
    other.write(
      { revision, edits: [{ changes: name('left'), at: 5 }], draft: length(8), at: 1_000 },
      bus as unknown as Design,
    )
    return other
  }

  it('is offered with its number, and not where the window is open', async () => {
    left(4)
    left(4, 'open')
    server.open = ['open']
    await keeper.open(answer())
    await vi.advanceTimersByTimeAsync(1)
    expect(keeper.offers.map((o) => [o.left.window, o.count, o.at.getTime()])).toEqual([['other', 2, 1_000]])
  })

  it('is taken up on the state it was made on', async () => {
    left(4)
    await keeper.open(answer())
    await vi.advanceTimersByTimeAsync(1)
    const document = keeper.takeUp(keeper.offers[0]) as unknown as typeof bus
    expect(document).toEqual({ name: 'left', banks: [{ runs: [{ lengthM: 8 }] }] })
    await keeper.pump()
    expect(kept()).toEqual(document)
    expect(keeper.offers).toEqual([])
    expect(new Left('d1', 'other').read()).toBeNull()
  })

  it('on another state is for the user to see, and stays until the choice', async () => {
    left(3)
    await keeper.open(answer())
    await vi.advanceTimersByTimeAsync(1)
    const mine = keeper.takeUp(keeper.offers[0]) as unknown as typeof bus
    expect(mine.name).toBe('left')
    expect(keeper.asking).toBe(true)
    expect(new Left('d1', 'other').read()).not.toBeNull()
    keeper.takeTheirs()
    expect(new Left('d1', 'other').read()).toBeNull()
    expect(kept().name).toBe('bus')
  })

  it('may be let go', async () => {
    left(4)
    await keeper.open(answer())
    await vi.advanceTimersByTimeAsync(1)
    keeper.letGo(keeper.offers[0])
    expect(keeper.offers).toEqual([])
    expect(new Left('d1', 'other').read()).toBeNull()
    expect(server.sent).toEqual([])
  })
})

describe('back and forward', () => {
  it('waits for what is on its way', async () => {
    const edit = keeper.hold(length(3))
    const released = keeper.release([edit])
    const before = await keeper.walk('undo')
    await released
    expect(server.sent).toEqual([4])
    expect(before!.name).toBe('before')
    expect(keeper.canUndo).toBe(true)
  })

  it('gives nothing while something waits, and where nobody answers', async () => {
    keeper.hold(length(3))
    expect(await keeper.walk('undo')).toBeNull()
    await keeper.open(answer())
    await keeper.pump()
    expect(await keeper.walk('redo')).toBeNull()
  })

  it('comes upon what is newer', async () => {
    server.design = { ...bus, name: 'theirs' }
    server.revision = 9
    expect((await keeper.walk('undo'))!.name).toBe('theirs')
    expect(keeper.revision).toBe(9)
  })
})
