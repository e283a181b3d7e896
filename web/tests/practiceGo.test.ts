import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { FoundBank, PracticeAnswer, PracticeGo } from '../src/api/client'

/** The server: what it is asked, and what it answers. */
const server = vi.hoisted(() => ({
  away: false,
  refuses: null as string | null,
  sent: [] as { key: string; seed: number; level: number; answers: PracticeAnswer[]; over: boolean }[],
  goes: [] as { level: number }[],
  faults: 3,
}))

vi.mock('../src/app/session.svelte', () => ({ session: { release: vi.fn(), present: vi.fn() } }))
vi.mock('../src/api/client', () => {
  class Refused extends Error {
    constructor(
      readonly status: number,
      message: string,
    ) {
      super(message)
    }
  }
  const answer = <T>(value: T): Promise<T> =>
    server.away
      ? Promise.reject(new Error('The server does not answer.'))
      : server.refuses
        ? Promise.reject(new Refused(400, server.refuses))
        : Promise.resolve(value)
  const bank = (seed: number, level: number) =>
    ({
      seed,
      level: { number: level, faults: server.faults },
      parts: [
        {
          key: 'b1/main-fuse',
          name: 'the main fuse',
          sentences: [
            { id: 'fuse-none', words: 'There is no fuse' },
            { id: 'in-order', words: 'Nothing: it is in order' },
          ],
        },
        { key: 'place', name: 'where it stands', sentences: [{ id: 'in-order', words: 'Nothing: it is in order' }] },
      ],
    }) as unknown as FoundBank
  return {
    Refused,
    api: {
      practiceLevels: () => Promise.resolve([1, 2, 3, 4, 5, 6].map((number) => ({ number }))),
      practiceResults: () => Promise.resolve({ goes: server.goes, words: '', trend: { ratios: [] } }),
      practiceBank: (seed: number, level: number) => answer(bank(seed, level)),
      practiceGo: (go: (typeof server.sent)[number]) => {
        server.sent.push(go)
        return answer({
          answers: go.answers.map((a) => ({
            answer: a,
            is: 'in-order',
            number: 0,
            shown: { words: '', pointer: null },
          })),
          over: go.over,
        } as unknown as PracticeGo)
      },
      evaluate: () => Promise.resolve({ working: [] }),
    },
  }
})

const KEPT = 'inky-badger.practice'

/** A page that was just opened, with what a browser remembered of the last one. */
async function page(remembered: Record<string, string> = {}) {
  const all = new Map(Object.entries(remembered))
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => all.get(key) ?? null,
    setItem: (key: string, value: string) => void all.set(key, value),
    removeItem: (key: string) => void all.delete(key),
  })
  vi.resetModules()
  const { practice } = await import('../src/practice/practice.svelte')
  return { practice, all }
}

const kept = (more: object = {}) => ({
  [KEPT]: JSON.stringify({
    key: 'mine',
    seed: 40,
    level: 4,
    answers: [{ part: 'place', said: 'in-order', atS: 12 }],
    over: false,
    spentS: 31,
    ...more,
  }),
})

beforeEach(() => {
  server.away = false
  server.refuses = null
  server.sent = []
  server.goes = []
})

describe('a go', () => {
  it('begins with the easiest bank, and later at the level one was at', async () => {
    const first = await page()
    await first.practice.begin()
    expect(first.practice.bank?.level.number).toBe(1)
    server.goes = [{ level: 2 }, { level: 5 }]
    const later = await page()
    await later.practice.begin()
    expect(later.practice.bank?.level.number).toBe(5)
  })

  it('goes on where the page was left, under its own key', async () => {
    const { practice } = await page(kept())
    await practice.begin()
    expect(practice.bank?.seed).toBe(40)
    expect(practice.spentS).toBe(31)
    practice.point('b1/main-fuse')
    await practice.say('fuse-none')
    expect(server.sent.at(-1)).toMatchObject({ key: 'mine', seed: 40, level: 4, over: false })
    expect(server.sent.at(-1)?.answers).toEqual([
      { part: 'place', said: 'in-order', atS: 12 },
      { part: 'b1/main-fuse', said: 'fuse-none', atS: 31 },
    ])
  })

  it('that was kept is not lost to a server that is away', async () => {
    const { practice, all } = await page(kept())
    server.away = true
    await practice.begin()
    expect(practice.trouble).toBe('The server does not answer.')
    expect(all.get(KEPT)).toBe(kept()[KEPT])
    server.away = false
    await practice.begin()
    expect(practice.trouble).toBeNull()
    expect(practice.go?.answers).toHaveLength(1)
  })

  it('that nobody can go on with gives way to another one', async () => {
    const { practice, all } = await page(kept())
    server.refuses = 'nobody can say that of this part'
    await practice.begin()
    expect(all.has(KEPT)).toBe(false)
    expect(practice.trouble).toBe('nobody can say that of this part')
    server.refuses = null
    await practice.begin()
    expect(practice.bank).not.toBeNull()
    expect(practice.go?.answers).toEqual([])
  })

  it.each(['{', 'null', '7', '{"key":3}', '{"key":"k","seed":"x","answers":[]}'])(
    'begins anew where what was kept is no go: %s',
    async (text) => {
      const { practice } = await page({ [KEPT]: text })
      await practice.begin()
      expect(practice.trouble).toBeNull()
      expect(practice.go?.answers).toEqual([])
    },
  )

  it('takes an answer back that was not judged, and leaves what was chosen', async () => {
    const { practice } = await page(kept())
    await practice.begin()
    practice.point('b1/main-fuse')
    practice.chosen = 'fuse-none'
    server.away = true
    await practice.say()
    expect(practice.trouble).toBe('The server does not answer.')
    expect(practice.chosen).toBe('fuse-none')
    server.away = false
    await practice.say()
    // Once, though it was pressed twice.
    expect(server.sent.at(-1)?.answers.map((a) => a.said)).toEqual(['in-order', 'fuse-none'])
    expect(practice.chosen).toBeNull()
  })

  it('is not over before the server says so', async () => {
    const { practice } = await page(kept())
    await practice.begin()
    server.away = true
    await practice.showLeft()
    expect(practice.over).toBe(false)
    server.away = false
    practice.point('place')
    await practice.say('in-order')
    expect(server.sent.at(-1)?.over).toBe(false)
    await practice.showLeft()
    expect(practice.over).toBe(true)
    // Over, nothing more is said of it.
    const asked = server.sent.length
    await practice.say('in-order')
    expect(server.sent).toHaveLength(asked)
  })

  it('forgets what was chosen when something else is pointed at', async () => {
    const { practice } = await page()
    await practice.begin()
    practice.point('b1/main-fuse')
    practice.chosen = 'fuse-none'
    practice.point('b1/main-fuse')
    expect(practice.chosen).toBe('fuse-none')
    practice.point('place')
    expect(practice.chosen).toBeNull()
    expect(practice.part?.name).toBe('where it stands')
  })

  it('with another bank has another key and no time spent', async () => {
    const { practice } = await page(kept())
    await practice.begin()
    await practice.another()
    expect(practice.bank?.level.number).toBe(4)
    expect(practice.spentS).toBe(0)
    expect(server.sent.at(-1)?.key).not.toBe('mine')
    expect(server.sent.at(-1)?.answers).toEqual([])
  })
})

describe('the number of a bank', () => {
  it.each([
    ['7', 7],
    [' 41 ', 41],
    ['12,345', 12_345],
    ['999 999', 999_999],
    ['0', null],
    ['1000000', null],
    ['7.5', null],
    ['-3', null],
    ['1e3', null],
    ['seven', null],
    ['', null],
  ])('typed as “%s” is %s', async (typed, number) => {
    const { seedOf } = await import('../src/practice/practice.svelte')
    expect(seedOf(typed)).toBe(number)
  })

  it('is drawn among those there are', async () => {
    const { someSeed, MOST_SEED } = await import('../src/practice/practice.svelte')
    for (let i = 0; i < 200; i++) {
      const n = someSeed()
      expect(Number.isInteger(n)).toBe(true)
      expect(n).toBeGreaterThanOrEqual(1)
      expect(n).toBeLessThanOrEqual(MOST_SEED)
    }
  })
})

describe('a key', () => {
  it('is nobody else’s, and is there without TLS', async () => {
    const { newKey } = await import('../src/app/newKey')
    const keys = Array.from({ length: 500 }, newKey)
    expect(new Set(keys).size).toBe(500)
    for (const key of keys) expect(key).toMatch(/^[0-9a-f]{18}$/)
  })
})

describe('what stands on a part', () => {
  const thing = (key: string, ...lines: string[]) => ({ key, lines, absent: lines.length === 0 })
  const bank = {
    drawing: {
      place: thing('place', '20 °C around it'),
      joins: [thing('join-j1', 'DC–DC', '10 A')],
      banks: [
        {
          series: 4,
          units: [
            {
              key: 'b1/unit-1-1',
              volts: '12.8 V',
              ah: '100 Ah',
              kind: 'LFP, new',
              measured: ['tested 88 Ah'],
              plate: ['12.1 kg'],
              joint: 'joint 8.0 mΩ',
            },
          ],
          conductors: [{ copper: { key: 'b1/copper-1', label: '25 mm², 0.3 m' } }],
          whole: thing('b1/bank', '48 V'),
          fuse: thing('b1/main-fuse'),
          switch: thing('b1/switch', 'switch', '150 A'),
          shunt: thing('b1/shunt', 'shunt'),
          bus: thing('b1/bus', 'bus'),
          stringFuses: null,
          bonding: null,
          inverter: null,
          cable: { key: 'b1/main-cable', label: '25 mm², 2 m' },
          panel: null,
          runs: [
            {
              thing: thing('b1/load-a', 'Lights', '24 W'),
              fuse: thing('b1/load-a', '5 A', 'blade'),
              copper: { label: '1.5 mm², 4 m' },
              pastShunt: true,
              tap: 1,
              front: null,
            },
            {
              thing: thing('b1/source-roof', 'Roof'),
              fuse: thing('b1/source-roof'),
              copper: null,
              pastShunt: false,
              tap: null,
              front: thing('b1/array-roof', '4 × 110 W'),
            },
          ],
        },
      ],
    },
  } as unknown as FoundBank

  it.each([
    ['place', ['20 °C around it']],
    ['join-j1', ['DC–DC', '10 A']],
    ['b1/unit-1-1', ['12.8 V 100 Ah', 'LFP, new', 'tested 88 Ah', 'joint 8.0 mΩ', '12.1 kg']],
    ['b1/copper-1', ['25 mm², 0.3 m']],
    ['b1/main-cable', ['25 mm², 2 m']],
    ['b1/main-fuse', ['nothing there']],
    ['b1/switch', ['switch', '150 A']],
    [
      'b1/load-a',
      [
        'Lights',
        '24 W',
        'fuse 5 A, blade',
        '1.5 mm², 4 m',
        'its negative goes to the bank’s own post',
        'taken after 1 of 4 units of a string',
      ],
    ],
    ['b1/source-roof', ['Roof', 'no fuse']],
    ['b1/array-roof', ['4 × 110 W']],
    ['b1/no-such', []],
  ])('%s is told in full', async (key, lines) => {
    const { linesOf } = await import('../src/practice/practice.svelte')
    expect(linesOf(bank, key)).toEqual(lines)
  })
})
