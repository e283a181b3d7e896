import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Build } from '../src/api/client'

/** The server: the builds it finds, and what it was asked to compare. */
const server = vi.hoisted(() => ({
  finds: [] as unknown[],
  compared: [] as { kept: unknown[]; terms: unknown; subject: number }[],
  present: 'p',
  away: false,
  held: null as (() => void)[] | null,
}))
const session = vi.hoisted(() => ({
  id: 'd1',
  worked: { name: 'van' } as unknown,
  bankIndex: 0,
  result: { bank: { unit: { key: 'u-present', productLine: 'L1' } } },
  evaluate: vi.fn(),
  edit: vi.fn(),
}))

vi.mock('../src/app/session.svelte', () => ({ session }))
vi.mock('../src/api/client', () => {
  const answered = async () => {
    if (server.held) await new Promise<void>((go) => server.held!.push(go))
    if (server.away) throw new Error('The server does not answer.')
  }
  return {
    api: {
      builds: async (_: unknown, __: number, stop: AbortSignal, line: (l: unknown) => void) => {
        await answered()
        if (stop.aborted) throw new DOMException('stopped', 'AbortError')
        line({ out: { tooMany: 3 }, candidates: 9, of: server.finds.length, worked: 0 })
        server.finds.forEach((build, n) => line({ build, worked: n + 1, of: server.finds.length }))
        line({ done: true, worked: server.finds.length, of: server.finds.length })
      },
      compareBuilds: async (_: unknown, __: number, kept: unknown[], terms: unknown, subject: number) => {
        server.compared.push({ kept, terms, subject })
        await answered()
        return { builds: [{ key: server.present }] }
      },
      takeBuild: async (_: unknown, __: number, choice: { unit: { key: string } }) => [
        { path: '/banks/0/unit', value: choice.unit.key },
      ],
    },
  }
})

const build = (key: string, total: number, more: Record<string, unknown> = {}): Build =>
  ({
    key,
    fits: more.fits ?? true,
    bill: { total, unknown: more.unknown ?? [] },
    choice: {
      unit: { key: `u-${key}`, chemistry: more.chemistry ?? 'lfp', cells: more.cells ?? 4, productLine: more.line },
    },
  }) as unknown as Build

const { builds, letter, PRESENT } = await import('../src/builds/bench.svelte')

beforeEach(() => {
  Object.assign(server, { finds: [], compared: [], present: 'p', away: false, held: null })
  session.worked = { name: 'van' }
  session.evaluate.mockClear()
  session.edit.mockClear()
  builds.sameLine = false
  builds.reset()
})
const settled = async () => {
  for (let n = 0; n < 20; n++) await Promise.resolve()
}

describe('the builds that are found', () => {
  it('stand with those that fit first, then those whose cost is known, then by cost', async () => {
    server.finds = [
      build('d', 100, { fits: false }),
      build('c', 50, { unknown: ['lug'] }),
      build('b', 300),
      build('a', 300),
      build('e', 200),
    ]
    await builds.search()
    expect(builds.found.map((b) => b.key)).toEqual(['e', 'a', 'b', 'c', 'd'])
    expect(builds.screening).toEqual({ candidates: 9, out: { tooMany: 3 }, of: 5 })
    expect(builds.worked).toBe(5)
    expect(session.evaluate).toHaveBeenCalledOnce()
  })

  it('are searched once for a design, and anew for another', async () => {
    server.finds = [build('a', 1)]
    await builds.search()
    server.finds = [build('b', 1)]
    await builds.search()
    expect(builds.found.map((b) => b.key)).toEqual(['a'])
    session.worked = { name: 'boat' }
    await builds.search()
    expect(builds.found.map((b) => b.key)).toEqual(['b'])
  })

  it('put the cheapest of each kind beside the design, until somebody chooses', async () => {
    server.finds = [
      build('a', 1),
      build('b', 2),
      build('c', 3, { chemistry: 'agm' }),
      build('d', 4, { cells: 8 }),
      build('e', 5, { cells: 16 }),
      build('f', 0, { chemistry: 'gel', fits: false }),
    ]
    await builds.search()
    expect(builds.keys).toEqual([PRESENT, 'a', 'c', 'd'])
    builds.put([PRESENT, 'e'])
    session.worked = { name: 'boat' }
    await builds.search()
    expect(builds.keys).toEqual([PRESENT, 'e'])
  })

  it('say that nobody answers', async () => {
    server.away = true
    await builds.search()
    expect(builds.told).toBe('The server does not answer.')
    expect(builds.running).toBe(false)
    // The next look searches anew.
    server.away = false
    server.finds = [build('a', 1)]
    await builds.search()
    expect(builds.found).toHaveLength(1)
  })

  it('are let go of when the search is stopped', async () => {
    server.held = []
    const searching = builds.search()
    await settled()
    builds.stop()
    const go = server.held.splice(0)
    server.held = null
    go.forEach((g) => g())
    await searching
    expect(builds.told).toBe('')
    expect(builds.running).toBe(false)
  })

  it('may be those of the present product line alone', async () => {
    server.finds = [build('a', 1, { line: 'L1' }), build('b', 2, { line: 'L2' })]
    await builds.search()
    builds.sameLine = true
    expect(builds.list.map((b) => b.key)).toEqual(['a'])
  })
})

describe('side by side', () => {
  beforeEach(async () => {
    server.finds = [build('a', 1), build('b', 2, { chemistry: 'agm' }), build('c', 3, { chemistry: 'gel' })]
    await builds.search()
    await settled()
    server.compared = []
  })

  it('are five at most, the design first', async () => {
    builds.put([PRESENT, 'a', 'b', 'c', 'x', 'y'])
    await settled()
    expect(builds.full).toBe(false)
    // Those that are no longer found are left out.
    expect(builds.keys).toEqual([PRESENT, 'a', 'b', 'c'])
    expect(server.compared[0].kept).toHaveLength(4)
    expect(server.compared[0].kept[0]).toBeNull()
  })

  it('show a build once where the design stands on it', async () => {
    server.present = 'a'
    builds.subject = 'a'
    builds.put([PRESENT, 'a', 'b'])
    await settled()
    expect(builds.keys).toEqual([PRESENT, 'b'])
    expect(builds.subject).toBe(PRESENT)
  })

  it('are one of each chemistry when that is asked', async () => {
    server.present = 'a'
    await builds.compare()
    builds.putChemistries()
    expect(builds.keys).toEqual([PRESENT, 'b', 'c'])
  })

  it('ask for the newest state alone while an answer is on its way', async () => {
    server.held = []
    const first = builds.compare()
    builds.put([PRESENT, 'a'])
    builds.put([PRESENT, 'b'])
    server.held.splice(0).forEach((g) => g())
    await settled()
    server.held.splice(0).forEach((g) => g())
    server.held = null
    await first
    expect(server.compared).toHaveLength(2)
    expect(builds.keys).toEqual([PRESENT, 'b'])
  })

  it('are told anew at each answer while a price is dragged', async () => {
    server.held = []
    builds.tryPrice = 50
    const first = builds.compare()
    builds.tryPrice = 60
    void builds.compare()
    builds.comparison = null
    server.held.splice(0).forEach((g) => g())
    await settled()
    expect(builds.comparison).not.toBeNull()
    server.held.splice(0).forEach((g) => g())
    server.held = null
    await first
    expect(server.compared.map((c) => c.terms)).toMatchObject([
      { unitPrices: { 'u-present': 50 } },
      { unitPrices: { 'u-present': 60 } },
    ])
  })

  it('try a price on the unit that is turned against the others', async () => {
    builds.tryPrice = 99
    expect(builds.terms.unitPrices).toEqual({ 'u-present': 99 })
    builds.subject = 'b'
    builds.tryRate = 40
    expect(builds.terms).toEqual({ unitPrices: { 'u-b': 99 }, hourRate: 40, cyclesPerYear: null })
    expect(builds.choiceOfSubject!.unit.key).toBe('u-b')
    builds.put([PRESENT, 'b'])
    await settled()
    expect(server.compared.at(-1)!.subject).toBe(1)
    builds.put([PRESENT, 'a'])
    expect(builds.subject).toBe(PRESENT)
    expect(builds.choiceOfSubject).toBeNull()
  })

  it('are taken over as one edit', async () => {
    await builds.take(builds.found[1])
    expect(session.edit).toHaveBeenCalledWith([{ path: '/banks/0/unit', value: 'u-b' }], true)
  })

  it('have letters from A on', () => {
    expect([0, 1, 4].map(letter)).toEqual(['A', 'B', 'E'])
  })
})
