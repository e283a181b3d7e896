import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Design, Drop, Remedy, RiskStep, YearDay, YearLine, YearQuarters } from '../src/api/client'

type Line = (line: unknown) => void

/** The server: what it was asked, and what it has to say. */
const server = vi.hoisted(() => ({
  asked: [] as { what: string; design: unknown; bank: number }[],
  lines: {} as Record<string, unknown[]>,
  away: false,
  refuses: null as string | null,
  /** Answers that wait until somebody lets them go. */
  held: null as (() => void)[] | null,
  stretches: [] as { drops: unknown; begins: string; days: number }[],
}))

const session = vi.hoisted(() => ({
  worked: null as unknown,
  design: null as unknown,
  bankIndex: 0,
  bank: { id: 'b2' },
  evaluate: vi.fn(),
  present: vi.fn(),
  edits: [] as { change: { path: string; value: unknown }; commit: boolean }[],
  edit(change: { path: string; value: unknown }, commit: boolean) {
    this.edits.push({ change, commit })
  },
}))

vi.mock('../src/app/session.svelte', () => ({ session }))
vi.mock('../src/api/client', () => {
  class Refused extends Error {}
  const answered = async () => {
    if (server.held) await new Promise<void>((go) => server.held!.push(go))
    if (server.away) throw new Error('The server does not answer.')
    if (server.refuses) throw new Refused(server.refuses)
  }
  return {
    Refused,
    api: {
      rehearse: async (what: string, design: unknown, bank: number, stop: AbortSignal, line: Line) => {
        server.asked.push({ what, design, bank })
        await answered()
        if (stop.aborted) throw new DOMException('stopped', 'AbortError')
        for (const l of server.lines[what] ?? []) line(l)
      },
      stretch: async (design: { rehearsal: { drops: unknown } }, _: number, begins: string, days: number) => {
        server.stretches.push({ drops: design.rehearsal.drops, begins, days })
        await answered()
        return { from: 30, days: [day(0, 0.1)], quarters: [] }
      },
      instants: async (_: unknown, __: number, begins: string) => {
        await answered()
        return Array.from({ length: 96 }, (___, n) => ({ begins, n }))
      },
    },
  }
})

const day = (darkH: number, lowestSoc: number) => ({ darkH, lowestSoc }) as unknown as YearDay
const dark = (...at: number[]) =>
  ({ dark: Array.from({ length: 96 }, (_, q) => at.includes(q)) }) as unknown as YearQuarters

/** A year of so many days: the lowest charge on one, dark hours on others. */
function yearOf(days: number, lowest: number, darkOn: Record<number, number[]> = {}): YearLine[] {
  const all = Array.from({ length: days }, (_, n) => day((darkOn[n]?.length ?? 0) / 4, n === lowest ? 0.2 : 0.8))
  const line = (from: number, to: number) =>
    ({
      month: {
        days: all.slice(from, to),
        quarters: all.slice(from, to).map((_, n) => dark(...(darkOn[from + n] ?? []))),
        begins: all.slice(from, to).map((_, n) => `day ${from + n}`),
      },
    }) as unknown as YearLine
  const lines = [{ intro: { first: '2026-07-01', wait: null } } as unknown as YearLine]
  for (let at = 0; at < days; at += 31) lines.push(line(at, Math.min(days, at + 31)))
  lines.push({
    outcome: { headline: 'as it went', working: [{ pointer: '/rehearsal/outcome/darkH' }] },
  } as unknown as YearLine)
  return lines
}

const { year, FORTNIGHT } = await import('../src/rehearse/year.svelte')
const design = {
  name: 'van',
  rehearsal: { drops: [], from: '2026-07-01', weather: 3 },
} as unknown as Design

beforeEach(() => {
  Object.assign(server, { asked: [], lines: {}, away: false, refuses: null, held: null, stretches: [] })
  Object.assign(session, { worked: design, design, bankIndex: 0, edits: [] })
  session.evaluate.mockClear()
  session.present.mockClear()
  year.reset()
})
const settled = async () => {
  for (let n = 0; n < 20; n++) await Promise.resolve()
}

describe('a year', () => {
  it('is run month by month, then asks what would help', async () => {
    server.lines.run = yearOf(120, 80)
    await year.run()
    await settled()
    expect(year.days).toHaveLength(120)
    expect(year.outcome!.headline).toBe('as it went')
    expect(year.running).toBe(false)
    expect(year.isOf(design)).toBe(true)
    expect(year.isOf({ ...design })).toBe(false)
    expect(session.evaluate).toHaveBeenCalledOnce()
    expect(server.asked.map((a) => a.what)).toEqual(['run', 'remedies'])
  })

  it('shows the days around the lowest charge', async () => {
    server.lines.run = yearOf(120, 80)
    await year.run()
    // The first fortnight that holds it.
    expect(year.frame).toBe(80 - FORTNIGHT + 1)
    expect(year.at).toBe(Math.round((year.frame + 3.625) * 96))
  })

  it('shows the darkest days, the dark in their middle', async () => {
    server.lines.run = yearOf(120, 10, { 60: [0, 1, 2, 3], 61: [70, 71, 72], 100: [5] })
    await year.run()
    expect(year.frame).toBe(55)
  })

  it('stays where the hand has put it', async () => {
    server.lines.run = yearOf(120, 80)
    await year.run()
    year.look(12.4)
    expect(year.frame).toBe(12)
    server.lines.run = yearOf(120, 30)
    await year.run()
    expect(year.frame).toBe(12)
    year.look(999)
    expect(year.frame).toBe(120 - FORTNIGHT)
  })

  it('waits with its reason, and forgets the year before', async () => {
    server.lines.run = yearOf(60, 3)
    await year.run()
    server.lines.run = [{ intro: { first: '2026-07-01', wait: 'No bank yet' } }]
    await year.run()
    expect(year.days).toEqual([])
    expect(year.outcome).toBeNull()
    expect(year.intro!.wait).toBe('No bank yet')
    await settled()
    expect(server.asked.filter((a) => a.what === 'remedies')).toHaveLength(1)
  })

  it('says that nobody answers, or why it was refused', async () => {
    server.away = true
    await year.run()
    expect(year.trouble).toBe('The server does not answer.')
    expect(year.running).toBe(false)
    server.away = false
    server.refuses = 'The weather is no number'
    await year.run()
    expect(year.trouble).toBe('The weather is no number')
  })

  it('a newer one stops the one before it', async () => {
    server.held = []
    server.lines.run = yearOf(40, 3)
    const first = year.run()
    const second = year.run()
    const go = server.held.splice(0)
    server.held = null
    go.forEach((g) => g())
    await Promise.all([first, second])
    expect(year.trouble).toBeNull()
    expect(year.days).toHaveLength(40)
    expect(year.over).toBeGreaterThan(0)
  })

  it('opens the working of one of its figures', async () => {
    server.lines.run = yearOf(40, 3)
    await year.run()
    year.present('lowestSoc')
    expect(session.present).not.toHaveBeenCalled()
    year.present('darkH')
    expect(session.present).toHaveBeenCalledWith(year.outcome!.working[0], year.outcome!.working)
  })
})

describe('the play head', () => {
  beforeEach(async () => {
    server.lines.run = yearOf(120, 80, { 20: [4, 5, 9], 90: [0] })
    await year.run()
    year.look(0)
  })

  it('goes from dark to dark, not through one', () => {
    year.go(0)
    const seen: number[] = []
    for (let next = year.nextDark(); next !== null; next = year.nextDark()) {
      seen.push(next)
      year.go(next)
    }
    expect(seen).toEqual([20 * 96 + 4, 20 * 96 + 9, 90 * 96])
  })

  it('takes the frame along, and stays within the year', () => {
    year.go(50 * 96)
    expect(year.frame).toBe(47)
    year.go(51.4 * 96)
    expect(year.frame).toBe(47)
    year.go(1e9)
    expect(year.at).toBe(120 * 96 - 1)
    expect(year.frame).toBe(120 - FORTNIGHT)
    year.go(-5)
    expect([year.at, year.frame]).toEqual([0, 0])
  })

  it('moves with a frame that is moved', () => {
    year.go(2 * 96)
    year.look(10)
    expect(year.at).toBe(12 * 96)
  })

  it('reads out its own instant once the day is there', async () => {
    year.go(7 * 96 + 30)
    expect(year.instant).toBeNull()
    await year.lookAt(7)
    expect(year.instant).toEqual({ begins: 'day 7', n: 30 })
    year.go(8 * 96)
    expect(year.instant).toBeNull()
    // Where nobody answers the path stays as the design has it.
    server.away = true
    await year.lookAt(8)
    expect(year.instants!.day).toBe(7)
  })
})

describe('days run again by themselves', () => {
  beforeEach(async () => {
    server.lines.run = yearOf(60, 35)
    await year.run()
    year.look(30)
  })
  const sun = (value: number) => [{ kind: 'sun', value }] as unknown as Drop[]

  it('begin as the year has them, and only the newest waits', async () => {
    server.held = []
    const first = year.attempt(sun(0.5))
    void year.attempt(sun(0.4))
    void year.attempt(sun(0.3))
    server.held.splice(0).forEach((g) => g())
    await settled()
    server.held.splice(0).forEach((g) => g())
    await first
    expect(server.stretches.map((s) => s.drops)).toEqual([sun(0.5), sun(0.3)])
    expect(server.stretches[0]).toMatchObject({ begins: 'day 30', days: FORTNIGHT })
    expect(year.dayAt(30)!.lowestSoc).toBe(0.1)
    expect(year.dayAt(31)!.lowestSoc).toBe(0.8)
  })

  it('are forgotten when it is let go without being kept', async () => {
    await year.attempt(sun(0.5))
    year.leave(true)
    expect(year.trying).not.toBeNull()
    year.leave(false)
    expect(year.trying).toBeNull()
    expect(year.dayAt(30)!.lowestSoc).toBe(0.8)
  })
})

describe('what would help', () => {
  const remedy = (title: string, darkH: number) => ({ title, darkH }) as unknown as Remedy

  it('stands by what is left dark, the first answer first', async () => {
    server.lines.run = yearOf(40, 3)
    server.lines.remedies = [
      { alone: remedy('as it is', 9) },
      { alone: remedy('a string more', 4) },
      { alone: remedy('more sun', 1) },
      { pair: remedy('both', 0) },
      { last: true },
    ]
    await year.run()
    await settled()
    expect(year.remedies.map((r) => r.title)).toEqual(['as it is', 'more sun', 'a string more'])
    expect(year.pair!.title).toBe('both')
    expect(year.searched).toBe(true)
    expect(year.searching).toBe(false)
  })

  it('is asked of many years, until somebody stops', async () => {
    server.lines.risk = [{ runs: 1 }, { runs: 2 }] as unknown as RiskStep[]
    await year.ask()
    expect(year.risk).toEqual({ runs: 2 })
    server.held = []
    const asking = year.ask()
    expect(year.risking).toBe(true)
    year.stopRisk()
    server.held.splice(0).forEach((g) => g())
    await asking
    expect(year.risking).toBe(false)
    expect(year.risk).toBeNull()
  })
})

describe('another design beside it', () => {
  it('goes through the same days and the same weather', async () => {
    server.lines.run = yearOf(40, 3)
    const other = { name: 'boat', rehearsal: { drops: [], from: '2020-01-01', weather: 99 } } as unknown as Design
    await year.compare('d2', 'boat', other, 1)
    expect(server.asked[0]).toMatchObject({
      bank: 1,
      design: { name: 'boat', rehearsal: { from: '2026-07-01', weather: 3 } },
    })
    expect(year.against).toMatchObject({ key: 'd2', name: 'boat', headline: 'as it went' })
    expect(year.against!.quarters).toHaveLength(40)
    year.alone()
    expect(year.against).toBeNull()
  })

  it('goes with a run of its own where it was a remedy', async () => {
    server.lines.run = yearOf(40, 3)
    await year.compare('remedy 1', 'a string more', design, 0)
    expect(year.against).not.toBeNull()
    await year.run()
    expect(year.against).toBeNull()
  })

  it('says why it cannot', async () => {
    server.refuses = 'It has no bank'
    await year.compare('d2', 'boat', design, 0)
    expect(year.against).toBeNull()
    expect(year.trouble).toBe('It has no bank')
  })
})

describe('what is dropped on the days', () => {
  it('begins where the play head stands, of the bank in hand', async () => {
    server.lines.run = yearOf(60, 35)
    await year.run()
    year.go(10 * 96 + 40)
    session.bankIndex = 1
    year.add('cloud' as Drop['kind'], 48, { value: 0.2 })
    expect(session.edits).toEqual([
      {
        change: {
          path: '/rehearsal/drops',
          value: [
            {
              kind: 'cloud',
              from: '2026-07-11T10:00',
              to: '2026-07-13T10:00',
              value: 0.2,
              string: null,
              source: null,
              bank: 'b2',
              weekdays: null,
            },
          ],
        },
        commit: true,
      },
    ])
  })
})
