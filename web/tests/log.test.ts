import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { LogLesson } from '../src/api/client'

/** The server: what it was asked, and whether it answers. */
const server = vi.hoisted(() => ({
  asked: [] as { from?: string; days: number }[],
  did: [] as unknown[],
  live: null as unknown,
  away: false,
  refuses: null as string | null,
  held: null as (() => void)[] | null,
}))
const session = vi.hoisted(() => ({
  id: 'd1',
  worked: { name: 'van' } as unknown,
  bankIndex: 0,
  bank: { id: 'b1' },
  result: { bank: { holds: { ah: 380 } }, voltage: { nominalV: 25.6 } },
  edit: vi.fn(),
}))

vi.mock('../src/app/session.svelte', () => ({ session }))
vi.mock('../src/api/client', () => {
  class Refused extends Error {}
  const answered = async () => {
    if (server.held) await new Promise<void>((go) => server.held!.push(go))
    if (server.away) throw new Error('failed to fetch')
    if (server.refuses) throw new Refused(server.refuses)
  }
  const act =
    (name: string) =>
    async (...what: unknown[]) => {
      await answered()
      server.did.push([name, ...what])
    }
  return {
    Refused,
    api: {
      log: async (_: string, __: unknown, ___: number, from: string | undefined, days: number, stop: AbortSignal) => {
        server.asked.push({ from, days })
        await answered()
        if (stop.aborted) throw new DOMException('stopped', 'AbortError')
        return { view: { frame: { from, days } }, live: server.live }
      },
      writeEntries: act('write'),
      takeBackEntry: act('take back'),
      restoreEntry: act('restore entry'),
      takeOutSeries: act('take out'),
      restoreSeries: act('restore series'),
      makeUp: act('make up'),
      startLive: act('start'),
      stopLive: act('stop'),
      takeInFile: async (
        id: string,
        how: unknown,
        file: File,
        stop: AbortSignal,
        line: (l: { readings: number }) => void,
      ) => {
        line({ readings: 10 })
        await answered()
        if (stop.aborted) throw new DOMException('stopped', 'AbortError')
        line({ readings: 25 })
        server.did.push(['take in', id, how, file.name])
      },
    },
  }
})

/** A stream of readings, as the browser has them. */
class Source {
  static all: Source[] = []
  heard: ((e: { data: string }) => void) | null = null
  onerror: (() => void) | null = null
  closed = false
  constructor(readonly url: string) {
    Source.all.push(this)
  }
  addEventListener(_: string, hear: (e: { data: string }) => void) {
    this.heard = hear
  }
  close() {
    this.closed = true
  }
}
vi.stubGlobal('EventSource', Source)

const { log } = await import('../src/log/log.svelte')
const file = { name: 'monitor.csv' } as File

beforeEach(() => {
  vi.useFakeTimers()
  Object.assign(server, { asked: [], did: [], live: null, away: false, refuses: null, held: null })
  Source.all = []
  session.worked = { name: 'van' }
  session.edit.mockClear()
  log.reset()
})
afterEach(() => {
  vi.clearAllTimers()
  vi.useRealTimers()
})

describe('the days that are looked at', () => {
  it('are the last week, until others are asked for', async () => {
    await log.ask()
    expect(server.asked).toEqual([{ from: undefined, days: 7 }])
    log.look('2026-03-01', 30.4)
    await vi.advanceTimersByTimeAsync(0)
    expect(server.asked[1]).toEqual({ from: '2026-03-01', days: 30 })
    log.look(null, 9999)
    log.look(null, 0)
    await vi.advanceTimersByTimeAsync(0)
    expect(server.asked.slice(2).map((a) => a.days)).toEqual([366, 1])
    // The last one asked for is the one that stands.
    expect(log.answer!.view).toMatchObject({ frame: { days: 1 } })
  })

  it('are asked for again where nobody answers, and only once', async () => {
    server.away = true
    await log.ask()
    await log.ask()
    expect(log.trouble).toBe('The server does not answer. What you typed stays here: try again.')
    server.away = false
    await vi.advanceTimersByTimeAsync(4000)
    expect(server.asked).toHaveLength(3)
    expect(log.trouble).toBeNull()
  })

  it('are not asked for before there is a design', async () => {
    session.worked = null
    await log.ask()
    expect(server.asked).toEqual([])
  })
})

describe('what is written', () => {
  it('goes to the bank in hand, and the days are read anew', async () => {
    expect(await log.write([{ kind: 'note' } as never])).toBe(true)
    expect(server.did).toEqual([['write', 'd1', 'b1', [{ kind: 'note' }]]])
    expect(server.asked).toHaveLength(1)
  })

  it('says why it was not taken', async () => {
    server.refuses = 'A day that is to come'
    expect(await log.write([])).toBe(false)
    expect(log.trouble).toBe('A day that is to come')
    expect(server.asked).toEqual([])
  })

  it('comes back where it was taken out by mistake', async () => {
    await log.takeBack(7, 'a note of Tuesday')
    expect(log.taken!.text).toBe('a note of Tuesday')
    await log.bringBack()
    expect(log.taken).toBeNull()
    await log.takeOut(3, 'a file')
    await log.bringBack()
    expect(server.did.map((d) => (d as string[])[0])).toEqual([
      'take back',
      'restore entry',
      'take out',
      'restore series',
    ])
    // Nothing more to bring back.
    await log.bringBack()
    expect(server.did).toHaveLength(4)
  })

  it('stays to be brought back while nobody answers', async () => {
    await log.takeOut(3, 'a file')
    server.away = true
    await log.bringBack()
    expect(log.taken!.text).toBe('a file')
  })

  it('a lesson is one edit', () => {
    log.apply({ changes: [{ path: '/name', value: 'x' }] } as unknown as LogLesson)
    expect(session.edit).toHaveBeenCalledWith([{ path: '/name', value: 'x' }], true)
  })
})

describe('a file of a monitor', () => {
  it('is taken in with what the bank holds, and the last days are shown', async () => {
    log.look('2026-01-01', 7)
    await vi.advanceTimersByTimeAsync(0)
    expect(await log.takeIn(file, 'shape')).toEqual({ readings: 25 })
    expect(server.did).toEqual([
      [
        'take in',
        'd1',
        { bank: 'b1', name: 'monitor.csv', shape: 'shape', ratedAh: 380, nominalV: 25.6 },
        'monitor.csv',
      ],
    ])
    expect(log.from).toBeNull()
    expect(log.coming).toBeNull()
  })

  it('that is stopped is no trouble', async () => {
    server.held = []
    const taking = log.takeIn(file, 'shape')
    await vi.advanceTimersByTimeAsync(0)
    expect(log.coming).toEqual({ readings: 10 })
    log.stopTakingIn()
    server.held.splice(0).forEach((go) => go())
    server.held = null
    expect(await taking).toBeNull()
    expect(log.trouble).toBeNull()
    expect(log.coming).toBeNull()
  })
})

describe('a made-up monitor', () => {
  beforeEach(() => {
    server.live = { seed: 1 }
  })

  it('is listened to, and the days are read anew every few seconds', async () => {
    expect(await log.start(1, 60)).toBe(true)
    expect(Source.all.map((s) => s.url)).toEqual(['/api/designs/d1/log/live?bank=b1'])
    const before = server.asked.length
    for (const volts of [26.1, 26.2, 26.3]) Source.all[0].heard!({ data: JSON.stringify({ volts }) })
    expect(log.reading).toEqual({ volts: 26.3 })
    await vi.advanceTimersByTimeAsync(3000)
    expect(server.asked).toHaveLength(before + 1)
    // It is the same stream as long as it lives.
    expect(Source.all).toHaveLength(1)
  })

  it('that ends is let go of, and what it was is asked for', async () => {
    await log.start(1, 60)
    server.live = null
    Source.all[0].heard!({ data: '{}' })
    Source.all[0].onerror!()
    await vi.advanceTimersByTimeAsync(0)
    expect(Source.all[0].closed).toBe(true)
    expect(log.live).toBeNull()
    expect(log.reading).toBeNull()
    const before = server.asked.length
    await vi.advanceTimersByTimeAsync(10_000)
    expect(server.asked).toHaveLength(before)
  })

  it('is stopped, and closed with the place', async () => {
    await log.start(1, 60)
    server.live = null
    await log.stop()
    expect(Source.all[0].closed).toBe(true)
    server.live = { seed: 1 }
    await log.ask()
    log.reset()
    expect(Source.all[1].closed).toBe(true)
    expect(log.answer).toBeNull()
  })
})
