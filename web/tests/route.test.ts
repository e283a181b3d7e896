import { describe, expect, it, vi } from 'vitest'

vi.mock('../src/stations', () => ({
  stations: ['loads', 'voltage', 'inverter', 'bank', 'cables', 'charging'].map((id) => ({ id })),
}))

/** A page at an address. */
async function at(hash: string) {
  const place = { hash }
  const heard: (() => void)[] = []
  vi.stubGlobal('location', place)
  vi.stubGlobal('addEventListener', (_: string, then: () => void) => heard.push(then))
  vi.resetModules()
  const { route } = await import('../src/app/route.svelte')
  return {
    route,
    /** As by a link, or the browser’s own way back. */
    to(next: string) {
      place.hash = next
      for (const then of heard) then()
    },
  }
}

const places = ['tape', 'summary', 'findings', 'builds', 'rehearse', 'sheets', 'bring-up', 'log', 'rules', 'practice']

describe('the address', () => {
  it.each(places)('#/d/…/%s is that place and no other', async (place) => {
    const { route } = await at(`#/d/abc/${place}`)
    const open = {
      tape: route.tape,
      summary: route.summary,
      findings: route.findings,
      builds: route.builds,
      rehearse: route.rehearse,
      sheets: route.sheets,
      'bring-up': route.bringUp,
      log: route.log,
      rules: route.rules,
      practice: route.practice,
    }
    expect(route.design).toBe('abc')
    expect(Object.entries(open).filter(([, on]) => on)).toEqual([[place, true]])
  })

  it.each(places)('%s without a design is none', async (place) => {
    const { route } = await at(`#/${place}`)
    expect(route.design).toBeNull()
    expect(route.practice || route.rules || route.log || route.tape).toBe(false)
    expect(route.practising).toBeNull()
    expect(route.rule).toBeNull()
  })

  it('names the station, and the first one where it names none', async () => {
    expect((await at('#/d/abc/cables')).route.station).toBe('cables')
    expect((await at('#/d/abc/nowhere')).route.station).toBe('loads')
    expect((await at('#/d/abc')).route.station).toBe('loads')
  })

  it('says what is practised, and which word is open', async () => {
    expect((await at('#/d/abc/practice')).route.practising).toEqual({ view: 'find', word: null })
    expect((await at('#/d/abc/practice/walk')).route.practising).toEqual({ view: 'walk', word: null })
    expect((await at('#/d/abc/practice/words/c-rate')).route.practising).toEqual({ view: 'words', word: 'c-rate' })
  })

  it('knows the shelf, a new design and a device’s key', async () => {
    expect((await at('#/shelf')).route.shelf).toBe(true)
    expect((await at('#/new')).route.fresh).toBe(true)
    expect((await at('#/key/4821')).route.key).toBe('4821')
    expect((await at('#/key')).route.key).toBe('')
    expect((await at('#/shelf')).route.key).toBeNull()
  })

  it('leads back from the house rules to where one was, of the same design', async () => {
    const { route, to } = await at('#/d/abc/cables')
    to('#/d/abc/rules')
    to('#/d/abc/rules/take-off')
    expect(route.rule).toBe('take-off')
    expect(route.back).toBe('#/d/abc/cables')
    // Another design’s rules are not left to the first one.
    to('#/d/xyz/rules')
    expect(route.back).toBe('#/d/xyz/bank')
  })

  it('comes back from the key to where the device was sent away', async () => {
    const { route } = await at('#/d/abc/bring-up')
    route.toKey()
    expect(route.key).toBe('')
    // Asked twice, it still knows.
    route.toKey()
    route.fromKey()
    expect(route.bringUp).toBe(true)
  })

  it('goes to a station', async () => {
    const { route } = await at('#/shelf')
    route.toStation('abc', 'bank')
    expect(route.hash).toBe('#/d/abc/bank')
    expect(route.station).toBe('bank')
  })
})
