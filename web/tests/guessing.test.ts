import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { GuessQuestion } from '../src/api/client'

const AMPS = '/banks/0/currents/bankWorstA'
const DROP = '/banks/0/mainRun/drop/fraction'
const COPPER = '/banks/0/mainRun/cable/areaMm2'

/** The design in hand, and the server that is asked about it. */
const state = vi.hoisted(() => ({
  away: false,
  asked: [] as [string, number][],
  figures: {} as Record<string, number | null>,
  session: { id: 'd1', bankIndex: 0, worked: { banks: [{}] } as unknown },
}))

vi.mock('../src/app/session.svelte', () => ({
  session: {
    get id() {
      return state.session.id
    },
    get bankIndex() {
      return state.session.bankIndex
    },
    get worked() {
      return state.session.worked
    },
    figure: (pointer: string) => state.figures[pointer] ?? null,
    show: (value: number, unit: string) =>
      unit === 'fraction'
        ? { text: (100 * value).toFixed(1), unit: '%' }
        : { text: value.toFixed(unit === 'mm2' ? 0 : 1), unit: unit === 'mm2' ? 'mm²' : unit },
  },
}))
vi.mock('../src/api/client', () => {
  const answer = <T>(value: T): Promise<T> =>
    state.away ? Promise.reject(new Error('The server does not answer.')) : Promise.resolve(value)
  const question = (id: string, pointer: string, unit: string) =>
    ({ id, pointer, unit, ask: `${id}?` }) as GuessQuestion
  return {
    api: {
      guesses: () =>
        answer([question('amps', AMPS, 'A'), question('drop', DROP, '%'), question('copper', COPPER, 'mm²')]),
      sayGuess: (_: unknown, __: number, id: string, said: number) => {
        state.asked.push([id, said])
        return answer({ judged: { words: `${said}` }, trend: { words: '' } })
      },
    },
  }
})

/** A page that was just opened. */
async function page(remembered: Record<string, string> = {}) {
  const all = new Map(Object.entries(remembered))
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => all.get(key) ?? null,
    setItem: (key: string, value: string) => void all.set(key, value),
    removeItem: (key: string) => void all.delete(key),
  })
  vi.resetModules()
  const { guessing } = await import('../src/app/guessing.svelte')
  return { guessing, all }
}

beforeEach(() => {
  state.away = false
  state.asked = []
  state.figures = { [AMPS]: 144.3, [DROP]: 0.016, [COPPER]: 50 }
  state.session = { id: 'd1', bankIndex: 0, worked: { banks: [{}] } }
})

describe('guess first, as a switch', () => {
  it('covers nothing as long as it is off', async () => {
    const { guessing } = await page()
    await guessing.ask()
    expect(guessing.covers(AMPS)).toBe(false)
    expect(guessing.mask('144.3 A at full load')).toBe('144.3 A at full load')
  })

  it('covers the figures that can be guessed, and no others', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    expect([AMPS, DROP, COPPER].map((p) => guessing.covers(p))).toEqual([true, true, true])
    expect(guessing.covers('/banks/0/voltage/nominalV')).toBe(false)
    expect(guessing.covers(null)).toBe(false)
  })

  it('is remembered, and forgotten', async () => {
    const first = await page()
    first.guessing.turn(true)
    expect(Object.fromEntries(first.all)).toEqual({ 'inky-badger.guess-first': 'on' })
    const again = await page(Object.fromEntries(first.all))
    expect(again.guessing.on).toBe(true)
    again.guessing.turn(false)
    expect(again.all.size).toBe(0)
  })

  it('takes the figure out of a sentence, in the unit in which it is shown', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    expect(guessing.mask('144.3 A over 50 mm² lose 1.6 %, and 144.3 A again')).toBe(
      '… A over … mm² lose … %, and … A again',
    )
    // A figure the design has no more is looked for in vain.
    state.figures[AMPS] = null
    expect(guessing.mask('144.3 A over 50 mm²')).toBe('144.3 A over … mm²')
  })

  it('shows a figure once it was said, of this design alone', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    guessing.press(AMPS)
    expect(guessing.open?.id).toBe('amps')
    await guessing.say('120')
    expect(state.asked).toEqual([['amps', 120]])
    expect(guessing.answer).not.toBeNull()
    expect(guessing.covers(AMPS)).toBe(false)
    expect(guessing.covers(DROP)).toBe(true)
    state.session.id = 'd2'
    expect(guessing.covers(AMPS)).toBe(true)
  })

  it('covers all again when it is switched on anew', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    guessing.uncover(AMPS)
    expect(guessing.covers(AMPS)).toBe(false)
    guessing.turn(false)
    guessing.turn(true)
    expect(guessing.covers(AMPS)).toBe(true)
  })

  it.each([
    ['62,5', 62.5],
    [' 0.8 ', 0.8],
    ['1 250', 1250],
  ])('reads “%s” as %s', async (typed, said) => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    guessing.press(AMPS)
    await guessing.say(typed)
    expect(guessing.trouble).toBeNull()
    expect(state.asked).toEqual([['amps', said]])
  })

  it.each(['1,250', '1.250'])('asks which is meant by “%s”, and sends nothing', async (typed) => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    guessing.press(AMPS)
    await guessing.say(typed)
    expect(guessing.trouble).toMatch(/two ways/)
    expect(state.asked).toEqual([])
  })

  it.each(['', 'many', '0', '-4'])('does not take “%s” for a figure', async (typed) => {
    const { guessing } = await page()
    guessing.turn(true)
    await guessing.ask()
    guessing.press(AMPS)
    await guessing.say(typed)
    expect(guessing.trouble).toBe('A figure above 0, in A.')
    expect(state.asked).toEqual([])
    expect(guessing.covers(AMPS)).toBe(true)
  })

  it('covers nothing that nobody could open again while the server is away', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    state.away = true
    await guessing.ask()
    expect(guessing.covers(AMPS)).toBe(false)
    state.away = false
    await guessing.ask()
    expect(guessing.covers(AMPS)).toBe(true)
    guessing.press(AMPS)
    state.away = true
    await guessing.say('120')
    expect(guessing.trouble).toBe('The server does not answer.')
    expect(guessing.covers(AMPS)).toBe(true)
  })

  it('asks nothing of a design without a bank', async () => {
    const { guessing } = await page()
    guessing.turn(true)
    state.session.worked = { banks: [] }
    await guessing.ask()
    expect(guessing.covers(AMPS)).toBe(false)
    guessing.press(AMPS)
    expect(guessing.open).toBeNull()
    await guessing.say('3')
    expect(state.asked).toEqual([])
  })
})
