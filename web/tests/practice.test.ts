import { describe, expect, it } from 'vitest'
import type { DrawnBank, DrawnRun, FoundDrawing } from '../src/api/client'
import { phrasesOf } from '../src/app/phrases'
import { Corners, type FoundPlan, thick, wrapped } from '../src/practice/foundPen'
import { foundPlan } from '../src/practice/foundPlan'
import { stackOf, unitRows, widthsOf } from '../src/practice/foundUnits'

const thing = (key: string, ...lines: string[]) => ({ key, lines, absent: false })

const unit = (s: number, u: number, measured: string[] = []): DrawnBank['units'][number] => ({
  key: `b1/unit-${s}-${u}`,
  string: s,
  unit: u,
  name: `${'ABCDEF'[s - 1]}${u}`,
  volts: '12.8 V',
  ah: '100 Ah',
  kind: 'LFP, new',
  measured,
  plate: ['BMS 100 A, 200 A for 10 s', '12.1 kg'],
  joint: null,
})

const run = (key: string, kind: DrawnRun['kind'], more: Partial<DrawnRun> = {}): DrawnRun => ({
  thing: thing(key, 'Something', '60 W'),
  kind,
  fuse: thing(key, '10 A', 'ISO 8820-3 blade, 32 V'),
  copper: { key, areaMm2: 1.5, conductors: 1, label: '1.5 mm², 4 m' },
  onPanel: false,
  tap: null,
  pastShunt: false,
  source: null,
  front: null,
  ...more,
})

function bank(series: number, parallel: number, more: Partial<DrawnBank> = {}): DrawnBank {
  return {
    id: 'b1',
    name: 'House bank',
    whole: thing('b1/bank', '24 V', 'really 25.6', `${series}S${parallel}P`, 'the maker allows 4S4P'),
    series,
    parallel,
    style: 'diagonal',
    units: Array.from({ length: series * parallel }, (_, i) => unit(1 + Math.floor(i / series), 1 + (i % series))),
    conductors: [],
    takeOff: 'b1/take-off',
    stringFuses: null,
    fuse: thing('b1/main-fuse', '100 A', 'Class T, bolted'),
    cable: { key: 'b1/main-cable', areaMm2: 25, conductors: 1, label: '25 mm², 1 m' },
    switch: thing('b1/switch', 'switch', '150 A', '32 V DC', 'with pre-charge'),
    shunt: thing('b1/shunt', 'shunt'),
    bus: thing('b1/bus', 'bus 150 A'),
    bonding: thing('b1/bonding', '16 mm²', 'to the frame'),
    inverter: thing('b1/inverter', '2,000 W', '4,000 W for 3 s', 'inverter, 24 V', 'sine', 'cuts off at 21 V'),
    panel: run('b1/panel', 'panel'),
    runs: [
      run('b1/load-a', 'load', { onPanel: true }),
      run('b1/load-b', 'load', { onPanel: true }),
      run('b1/source-roof', 'source', { source: 'solar', front: thing('b1/array-roof', '4 × 110 W', '2 in series') }),
      run('b1/source-plug', 'source', { source: 'mains' }),
      run('b1/load-c', 'ac-load', { fuse: null, copper: null }),
    ],
    ...more,
  }
}

const drawing = (...banks: DrawnBank[]): FoundDrawing => ({
  banks,
  joins: banks.length > 1 ? [thing('join-j1', 'DC–DC', '10 A')] : [],
  place: thing('place', '20 °C around it'),
})

describe('text on a drawing', () => {
  it('breaks between words, never between a figure and its unit', () => {
    expect(wrapped('200 A for 10 s', 12)).toEqual(['200\u00a0A for', '10\u00a0s'])
    expect(wrapped('open 24.3 V, at work 20.3 V', 14)).toEqual(['open 24.3\u00a0V,', 'at work 20.3\u00a0V'])
    expect(wrapped('switch', 3)).toEqual(['switch'])
    expect(wrapped('equalising off, 0 mV/K', 17)).toEqual(['equalising off,', '0\u00a0mV/K'])
  })

  it('tells what was measured before what is printed, and each line whole or not at all', () => {
    const u = unit(1, 1, ['tested 88 Ah'])
    expect(unitRows(u, 100, 2)).toEqual(['A1 100\u00a0Ah', 'tested 88\u00a0Ah'])
    expect(unitRows(u, 100, 9)).toContain('tested 88\u00a0Ah')
    // In a row of cells there is room for one figure: the one in which they differ.
    expect(unitRows(unit(1, 1), 50, 1)).toEqual(['100\u00a0Ah'])
    expect(unitRows(unit(1, 1), 50, 1, true)).toEqual(['12.8\u00a0V'])
    const rows = unitRows(unit(1, 1), 78, 4)
    expect(rows.length).toBeLessThanOrEqual(4)
    expect(rows.join(' ')).not.toMatch(/BMS 100\u00a0A,$/)
  })

  it('is as thick as the copper is: 2 px a mm', () => {
    expect(thick(50)).toBeCloseTo(15.96, 2)
    expect(thick(0.1)).toBe(1.2)
  })
})

describe('a bank as found', () => {
  it.each([
    [1, 1],
    [2, 3],
    [4, 2],
    [8, 2],
    [1, 6],
  ])('of %iS%iP has a place for everything one may point at', (series, parallel) => {
    const plan = foundPlan(drawing(bank(series, parallel)))
    const keys = new Set(plan.hits.map((h) => h.key))
    for (const key of [
      'b1/bank',
      'b1/main-fuse',
      'b1/main-cable',
      'b1/switch',
      'b1/shunt',
      'b1/bus',
      'b1/bonding',
      'b1/inverter',
    ])
      expect(keys).toContain(key)
    for (const key of ['b1/panel', 'b1/load-a', 'b1/load-b', 'b1/load-c', 'b1/source-roof', 'b1/array-roof', 'place'])
      expect(keys).toContain(key)
    expect(plan.hits.filter((h) => h.key.includes('/unit-'))).toHaveLength(series * parallel)
    for (const h of plan.hits) {
      expect(h.w).toBeGreaterThan(8)
      expect(h.h).toBeGreaterThan(6)
      expect(h.x).toBeGreaterThan(-10)
      expect(h.x + h.w).toBeLessThanOrEqual(plan.width + 10)
      expect(h.y + h.h).toBeLessThanOrEqual(plan.height + 10)
    }
  })

  it('no unit lies over another, nor a source over another', () => {
    const plan = foundPlan(drawing(bank(4, 3)))
    const some = plan.hits.filter((h) => /unit-|source-/.test(h.key))
    for (const [i, a] of some.entries())
      for (const b of some.slice(i + 1))
        expect(a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y, `${a.key} ${b.key}`).toBe(
          true,
        )
  })

  it('what is missing leaves its place, and is not drawn', () => {
    const whole = foundPlan(drawing(bank(2, 2)))
    const without = foundPlan(drawing(bank(2, 2, { switch: { key: 'b1/switch', lines: [], absent: true } })))
    expect(without.hits.map((h) => h.key)).toContain('b1/switch')
    expect(without.shapes.length).toBeLessThan(whole.shapes.length)
  })

  it('two banks stand under each other with what joins them', () => {
    const second = { ...bank(1, 2), id: 'b2', inverter: null, panel: null, runs: [] }
    const plan = foundPlan(drawing(bank(2, 2), second), 600)
    expect(plan.hits.map((h) => h.key)).toContain('join-j1')
    expect(plan.height).toBeLessThanOrEqual(660)
  })
})

describe('the room of a bank', () => {
  const sources = (n: number) =>
    Array.from({ length: n }, (_, i) => run(`b1/source-${i}`, 'source', { source: 'mains' }))

  it('is taken as wide as it likes where there is room', () => {
    const w = widthsOf(bank(2, 2, { runs: [] }), 2000)
    expect(w).toMatchObject({ col: 100, inverter: 102, gap: 34, loads: 160 })
  })

  it('makes columns narrower, and none narrower than its words', () => {
    const b = bank(2, 4, { runs: sources(2) })
    const [wide, narrow] = [widthsOf(b, 2000), widthsOf(b, 914)]
    expect(narrow.col).toBeLessThan(wide.col)
    expect(narrow.source).toBeLessThan(wide.source)
    expect(narrow.source).toBeGreaterThanOrEqual(94)
    expect(narrow.loads).toBeGreaterThanOrEqual(136)
    // The label of the main fuse and that of the switch lie side by side.
    expect(narrow.main).toBe(wide.main)
    expect(widthsOf(b, 1).col).toBe(59)
  })

  it('goes into a desk’s sheet with four strings, two sources and an inverter', () => {
    expect(foundPlan(drawing(bank(2, 4, { runs: sources(2) }))).width).toBe(934)
  })

  it('is higher where a source has much to say, and no box leaves its rails', () => {
    const words = Array.from({ length: 16 }, (_, i) => `line ${i} of a long plate`)
    const roof = run('b1/source-roof', 'source', {
      thing: thing('b1/source-roof', ...words),
      source: 'solar',
      front: thing('b1/array-roof', ...words),
    })
    const plan = foundPlan(drawing(bank(1, 2, { runs: [roof] })), 430)
    expect(plan.height).toBeGreaterThan(430 + 30)
    const hit = (key: string) => plan.hits.find((h) => h.key === key)!
    const minus = plan.hits.filter((h) => h.key === 'b1/bus').sort((a, b) => b.y - a.y)[0]
    expect(hit('b1/array-roof').y + hit('b1/array-roof').h).toBeLessThan(minus.y)
    expect(hit('b1/array-roof').y).toBeGreaterThan(hit('b1/source-roof').y + hit('b1/source-roof').h)
  })

  it('divides the height among the units of a string, with room for their fuses', () => {
    const plain = stackOf(bank(4, 2), 100, 500)
    expect(plain.top(1)).toBe(116)
    expect(plain.top(4) + plain.height).toBe(484)
    expect(plain.top(2) - plain.top(1)).toBe(plain.height + plain.gap)
    const fused = stackOf(bank(4, 2, { stringFuses: thing('b1/string-fuses', '70 A') }), 100, 500)
    expect(fused.top(1)).toBe(140)
    expect(fused.top(4) + fused.height).toBe(484)
  })

  it('has no wire that ends beside the bus where nothing goes on behind it', () => {
    const runs = ['a', 'b'].map((n) => run(`b1/load-${n}`, 'load'))
    const plan = foundPlan(drawing(bank(1, 1, { runs, panel: null, inverter: null })), 430)
    const boxes = plan.shapes.flatMap((s) => (s.t === 'box' && s.w === 24 && s.h === 28 ? [s] : []))
    expect(boxes).toHaveLength(2)
    const minus = boxes[1]
    const ends = plan.shapes.flatMap((s) => (s.t === 'copper' && s.d.endsWith(`H${minus.x + minus.w}`) ? [s.d] : []))
    const heights = ends.map((d) => Number(d.split('V').at(-1)!.split('H')[0]))
    expect(new Set(heights).size).toBe(2)
    for (const y of heights) {
      expect(y).toBeGreaterThan(minus.y)
      expect(y).toBeLessThan(minus.y + minus.h)
    }
  })

  it('has loads that hang below the inverter on a line that begins at it', () => {
    const runs = Array.from({ length: 8 }, (_, i) => run(`b1/load-${i}`, 'ac-load', { fuse: null, copper: null }))
    const plan = foundPlan(drawing(bank(1, 1, { runs, panel: null })), 430)
    const inverter = plan.hits.find((h) => h.key === 'b1/inverter')!
    const lines = plan.shapes.flatMap((s) =>
      s.t === 'ink' && s.d.startsWith(`M${inverter.x + inverter.w} `) ? [s.d] : [],
    )
    expect(lines).toHaveLength(8)
    for (const d of lines) {
      const y = Number(d.split(' ')[1].split('H')[0])
      expect(y).toBeGreaterThan(inverter.y)
      expect(y).toBeLessThan(inverter.y + inverter.h)
    }
  })
})

describe('a mark at a part', () => {
  const plan = (...words: { x: number; y: number; s: string }[]): FoundPlan => ({
    width: 400,
    height: 300,
    shapes: words.map((w) => ({ t: 'text', size: 11, ...w })),
    hits: [],
  })
  const part = { x: 100, y: 100, w: 80, h: 40 }

  it('stands at the corner at the upper right', () => {
    expect(new Corners(plan()).at(part, 20, 20)).toEqual({ x: 162, y: 94 })
  })

  it('goes where it covers no words, and no other mark', () => {
    const corners = new Corners(plan({ x: 150, y: 108, s: 'a long label' }))
    const first = corners.at(part, 20, 20)
    expect(first).not.toEqual({ x: 162, y: 94 })
    const second = corners.at(part, 20, 20)
    expect(Math.abs(first.x - second.x) >= 20 || Math.abs(first.y - second.y) >= 20).toBe(true)
  })

  it('stays in the drawing', () => {
    const corners = new Corners(plan())
    for (const p of [
      { x: 0, y: 0, w: 10, h: 10 },
      { x: 390, y: 290, w: 10, h: 10 },
      { x: 0, y: 290, w: 10, h: 10 },
    ]) {
      const at = corners.at(p, 20, 20)
      expect(at.x).toBeGreaterThanOrEqual(0)
      expect(at.y).toBeGreaterThanOrEqual(0)
      expect(at.x + 20).toBeLessThanOrEqual(400)
      expect(at.y + 20).toBeLessThanOrEqual(300)
    }
  })

  it('stands at its part all the same where there is no free place', () => {
    const everywhere = Array.from({ length: 60 }, (_, i) => ({ x: 0, y: i * 5, s: 'w'.repeat(80) }))
    expect(new Corners(plan(...everywhere)).at(part, 20, 20)).toEqual({ x: 162, y: 94 })
  })
})

describe('words of the job', () => {
  it('are found by their term without its sign and by their other names, the long ones first', () => {
    const phrases = phrasesOf([
      { key: 'ampere', term: 'Ampere (A)', aliases: ['current'] },
      { key: 'ampere-hour', term: 'Ampere-hour (Ah)', aliases: ['C'] },
    ])
    expect(phrases).toEqual([
      { text: 'ampere-hour', key: 'ampere-hour' },
      { text: 'current', key: 'ampere' },
      { text: 'ampere', key: 'ampere' },
    ])
  })
})
