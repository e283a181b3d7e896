import { describe, expect, it } from 'vitest'
import type { Evaluation } from '../src/api/client'
import { MOST_SOURCES, plan, sourceRows } from '../src/drawing/pathPlan'
import { LEAST_S, LogPaper, MOST_S, TIMES, ampsMark, marks125 } from '../src/stations/cables/logPaper'
import { bankColumns, poles } from '../src/stations/cables/loop'
import type { RunInHand } from '../src/stations/cables/hand.svelte'
import { type AcPart, type AcWire, layout } from '../src/stations/inverter/acLayout'
import { layers } from '../src/stations/loads/stack'
import { DayAxis } from '../src/ui/dayAxis'

describe('paper of current against time', () => {
  const paper = new LogPaper(690, 420, 10, 10_000, 60)

  it('gives each decade the same length', () => {
    // 64 to 664 px for three decades.
    expect([10, 100, 1000, 10_000].map((a) => Math.round(paper.x(a)))).toEqual([64, 264, 464, 664])
    const seven = (paper.bottom - paper.top) / Math.log10(MOST_S / LEAST_S)
    expect(paper.y(0.1) - paper.y(1)).toBeCloseTo(seven, 9)
    expect(paper.y(10) - paper.y(100)).toBeCloseTo(seven, 9)
  })

  it('reads back what it wrote', () => {
    for (const amps of [10, 12.5, 144.3, 999, 10_000]) expect(paper.ampsAt(paper.x(amps))).toBeCloseTo(amps, 6)
  })

  it('holds what is beyond its edges at them', () => {
    expect(paper.x(1)).toBe(64)
    expect(paper.x(1e6)).toBe(664)
    expect(paper.ampsAt(-50)).toBe(10)
    expect(paper.ampsAt(5000)).toBeCloseTo(10_000, 6)
    expect(paper.y(1e9)).toBeCloseTo(paper.top, 9)
    expect(paper.y(0)).toBeCloseTo(paper.bottom, 9)
    // What never opens is above all times.
    expect(paper.y(null)).toBe(paper.top)
  })

  it('draws a line through points, and a field between two of them', () => {
    const [low, high] = [
      [
        { amps: 10, s: LEAST_S },
        { amps: 100, s: LEAST_S },
      ],
      [
        { amps: 10, s: MOST_S },
        { amps: 100, s: null },
      ],
    ]
    expect(paper.line(low)).toBe('M64.0 360.0L264.0 360.0')
    expect(paper.area(low, high)).toBe('M64.0 360.0L264.0 360.0L264.0 14.0L64.0 14.0Z')
  })

  it('is marked at one, two and five of each decade', () => {
    expect(marks125(10, 1000)).toEqual([10, 20, 50, 100, 200, 500, 1000])
    expect(marks125(15, 60)).toEqual([20, 50])
    expect(marks125(0.2, 1)).toEqual([0.2, 0.5, 1])
    expect(marks125(3, 4)).toEqual([])
    expect(TIMES.every(([s]) => s >= LEAST_S && s <= MOST_S)).toBe(true)
    expect([500, 1000, 20_000].map(ampsMark)).toEqual(['500', '1', '20'])
  })
})

describe('the hours of a day on paper', () => {
  it('are equally long, and read back', () => {
    const axis = new DayAxis(100, 480)
    expect([0, 6, 12, 24].map((h) => axis.x(h))).toEqual([100, 220, 340, 580])
    for (const h of [0, 3.25, 17.5, 24]) expect(axis.hour(axis.x(h))).toBeCloseTo(h, 9)
    expect(axis.hour(0)).toBe(0)
    expect(axis.hour(9999)).toBe(24)
  })

  it('with one of them stretched takes it most of the paper, and the day is still a day', () => {
    const axis = new DayAxis(0, 1000, 10)
    expect(axis.x(0)).toBe(0)
    expect(axis.x(24)).toBeCloseTo(1000, 9)
    expect(axis.x(11) - axis.x(10)).toBeCloseTo(620, 9)
    // The other twenty-three share 380 px.
    expect(axis.x(5) - axis.x(4)).toBeCloseTo(380 / 23, 9)
    for (const h of [0, 9.9, 10, 10.25, 10.999, 11, 23.5]) expect(axis.hour(axis.x(h))).toBeCloseTo(h, 9)
  })

  it('are snapped to five minutes, in the stretched one to one', () => {
    const axis = new DayAxis(0, 1000, 10)
    expect(axis.snap(8.06) * 60).toBeCloseTo(485, 6)
    expect(axis.snap(10.06) * 60).toBeCloseTo(604, 6)
    expect(new DayAxis(0, 1000).snap(10.06) * 60).toBeCloseTo(605, 6)
  })

  it('carry as many labels as can be read', () => {
    expect(new DayAxis(0, 480).ticks()).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24])
    expect(new DayAxis(0, 2000).ticks()).toHaveLength(25)
    expect(new DayAxis(0, 60).ticks()).toEqual([0, 12, 24])
    const axis = new DayAxis(0, 1000, 10)
    const at = axis
      .ticks()
      .map((h) => axis.x(h))
      .sort((a, b) => a - b)
    for (let i = 1; i < at.length; i++) expect(at[i] - at[i - 1]).toBeGreaterThanOrEqual(44 - 1e-9)
    expect(axis.at(50).x(0)).toBe(50)
  })
})

describe('the day’s power in layers', () => {
  type Loads = Parameters<typeof layers>[0]
  type Rows = Parameters<typeof layers>[1]
  const row = (id: string, runningW: number, hoursOn: number) => ({ id, runningW, hoursOn }) as Rows[number]
  const load = (id: string, kind: 'ac' | 'dc', windows: number[][] | null, more: object = {}) =>
    ({ id, name: id, kind, season: 'both', windows, hours: null, ...more }) as Loads[number]

  it('lies with what is always on at the bottom, and what never passes the inverter above all', () => {
    const all = layers(
      [load('kettle', 'ac', [[7, 8]]), load('fridge', 'ac', [[0, 24]]), load('lamp', 'dc', [[7, 9]])],
      [row('kettle', 1800, 1), row('fridge', 60, 24), row('lamp', 24, 2)],
      'both',
    )
    expect(all.map((l) => l.key)).toEqual(['fridge', 'kettle', 'lamp'])
    expect(all[0].parts).toEqual([{ from: 0, to: 24, bottom: 0, top: 60 }])
    expect(all[1].parts).toEqual([{ from: 7, to: 8, bottom: 60, top: 1860 }])
    // Over the kettle while it boils, over the fridge afterwards.
    expect(all[2].parts).toEqual([
      { from: 7, to: 8, bottom: 1860, top: 1884 },
      { from: 8, to: 9, bottom: 60, top: 84 },
    ])
  })

  it('takes hours without times as on at every instant, and times past midnight as two stretches', () => {
    const [pump, heater] = layers(
      [load('pump', 'ac', null, { hours: 2 }), load('heater', 'ac', [[22, 2]])],
      [row('pump', 100, 2), row('heater', 500, 4)],
      'both',
    ).sort((a, b) => b.key.localeCompare(a.key))
    expect(pump.parts.reduce((h, p) => h + p.to - p.from, 0)).toBe(24)
    expect(heater.parts.reduce((h, p) => h + p.to - p.from, 0)).toBe(4)
  })

  it('leaves out what belongs to another season, draws nothing, or is not worked out yet', () => {
    const loads = [
      load('summer', 'ac', [[0, 1]], { season: 'summer' }),
      load('nothing', 'ac', [[0, 1]]),
      load('never', 'ac', null),
      load('new', 'ac', [[0, 1]]),
      load('here', 'ac', [[0, 1]]),
    ]
    const rows = [
      row('summer', 10, 1),
      row('nothing', 0, 1),
      row('never', 10, 0),
      row('other', 10, 1),
      row('here', 10, 1),
    ]
    expect(layers(loads, rows, 'winter').map((l) => l.key)).toEqual(['here'])
    expect(layers(loads, rows, 'summer').map((l) => l.key)).toEqual(['summer', 'here'])
  })

  it('puts many small ones together, and loses no watt', () => {
    const n = 14
    const loads = Array.from({ length: n }, (_, i) => load(`l${i}`, i % 2 ? 'ac' : 'dc', [[8, 10]]))
    const rows = loads.map((l, i) => row(l.id, 10 * (i + 1), 2))
    const all = layers(loads, rows, 'both')
    expect(all.filter((l) => l.key.startsWith('small'))).toHaveLength(2)
    expect(all.find((l) => l.key === 'small-false')?.name).toMatch(/^\d small loads$/)
    const top = Math.max(...all.flatMap((l) => l.parts.map((p) => p.top)))
    expect(top).toBe((10 * n * (n + 1)) / 2)
  })
})

describe('the conductors inside a bank', () => {
  type Bank = Evaluation['banks'][number]
  const bank = (shares: number, style: string, placed: object[] = []) =>
    ({
      network: {
        strings: { shares: Array.from({ length: shares }, () => 1 / shares), worstA: 44 },
        wiring: { style },
        links: { positiveA: [30, 60, 90], negativeA: [95], worstA: 120 },
        held: { positiveA: [50, 100, 150] },
        copper: { link: { ampacityA: 230, size: '50 mm²' }, lead: { ampacityA: 170 }, placed },
      },
    }) as unknown as Bank

  it('are a column a link, from the farthest string to the post', () => {
    const all = bankColumns(bank(4, 'diagonal'), false)
    expect(all.map((c) => [c.name, c.load, c.fuse])).toEqual([
      ['D to C', 90, 150],
      ['C to B', 60, 100],
      ['B to A', 30, 50],
    ])
    expect(all[0].loadPtr).toBe('/network/links/positiveA/2')
    expect(all.every((c) => c.copper === 230)).toBe(true)
  })

  it('know a link that is of another size', () => {
    const thin = { kind: 'link', rail: 'positive', after: 2, size: '16 mm²', ampacityA: 105 }
    const all = bankColumns(bank(4, 'diagonal', [thin]), false)
    expect(all.map((c) => c.copper)).toEqual([230, 105, 230])
    expect(all[1].copperPtr).toBeNull()
  })

  it('are one column where there are many, on rails, or by phone', () => {
    for (const [shares, style, narrow] of [
      [9, 'diagonal', false],
      [4, 'rails', false],
      [4, 'diagonal', true],
    ] as const) {
      const all = bankColumns(bank(shares, style), narrow)
      expect(all).toHaveLength(1)
      // The greatest of both rails.
      expect([all[0].load, all[0].fuse]).toEqual([95, 120])
    }
  })

  it('are the leads on bus bars, and none with one string', () => {
    expect(bankColumns(bank(3, 'bus-bars'), false)).toMatchObject([{ key: 'leads', load: 44, copper: 170 }])
    expect(bankColumns(bank(1, 'diagonal'), false)).toEqual([])
    expect(bankColumns({ network: null } as unknown as Bank, false)).toEqual([])
  })

  it('have both poles of a run with the volts lost up to each part and past it', () => {
    const at = (part: string, atM: number, lostBeforeV: number, lostV: number) => ({
      part,
      atM,
      lostBeforeV,
      lostV,
      surgeBeforeV: null,
      surgeV: null,
    })
    const circuit = {
      from: 'the panel',
      to: 'Lights',
      plus: [at('begin', 0, 0, 0), at('fuse', 0.1, 0.01, 0.03), at('end', 4, 0.2, 0.2)],
      minus: [at('end', 0, 0.4, 0.4)],
    }
    const { plus, minus } = poles({ bus: null } as unknown as Bank, { main: false, circuit } as unknown as RunInHand)
    expect(plus.map((p) => p.name)).toEqual(['the panel', 'fuse', 'Lights'])
    expect(plus[1]).toMatchObject({ kind: 'fuse', before: 0.01, lost: 0.03 })
    expect(minus[0].name).toBe('Lights')
    expect(poles({ bus: null } as unknown as Bank, { main: true, circuit: null } as unknown as RunInHand)).toEqual({
      plus: [],
      minus: [],
    })
  })
})

describe('an AC side on paper', () => {
  const part = (id: string, kind: string, positions: string[] = []) =>
    ({ id, kind, name: id, positions }) as unknown as AcPart
  const wire = (from: string, to: string, fromAt: number[] = [], toAt: number[] = []) =>
    ({ from, to, fromAt, toAt }) as unknown as AcWire
  const parts = [
    part('plug', 'plug'),
    part('inverter', 'inverter'),
    part('change', 'transfer', ['plug', 'inverter']),
    part('panel', 'panel'),
  ]
  const wires = [wire('plug', 'change', [], [1]), wire('inverter', 'change', [], [2]), wire('change', 'panel')]
  const order = [['plug', 'inverter'], ['change'], ['panel']]

  it('stands in columns by what feeds it, none over another', () => {
    const { placed, height } = layout(parts, wires, order, 700)
    const x = (id: string) => placed.find((p) => p.part.id === id)!.x
    expect(x('plug')).toBe(x('inverter'))
    expect(x('plug')).toBeLessThan(x('change'))
    expect(x('change')).toBeLessThan(x('panel'))
    for (const [i, a] of placed.entries()) {
      expect(a.y).toBeGreaterThanOrEqual(8)
      expect(a.y + a.h).toBeLessThanOrEqual(height)
      expect(a.x + a.w).toBeLessThanOrEqual(700)
      for (const b of placed.slice(i + 1)) expect(a.x !== b.x || a.y + a.h <= b.y || b.y + b.h <= a.y).toBe(true)
    }
  })

  it('has a switch tall enough for its positions, and a wire at each', () => {
    const { placed, lines } = layout(parts, wires, order, 700)
    const change = placed.find((p) => p.part.id === 'change')!
    expect(change.h).toBe(26 + 17 * 2)
    const ends = lines.slice(0, 2).map((l) => Number(l.d.match(/V([\d.]+)H[\d.]+$/)![1]))
    expect(ends[1] - ends[0]).toBe(17)
  })

  it('sets a part that is not arranged yet last, and leaves out a wire to nothing', () => {
    const { placed, lines } = layout([...parts, part('new', 'circuit')], [...wires, wire('new', 'gone')], order, 700)
    expect(placed.at(-1)?.part.id).toBe('new')
    expect(Math.max(...placed.map((p) => p.x))).toBe(placed.at(-1)?.x)
    expect(lines).toHaveLength(3)
    expect(layout([], [], [], 700).placed).toEqual([])
  })
})

describe('the path on paper', () => {
  it('has columns side by side that fill its width', () => {
    for (const width of [940, 1024, 1280, 1920]) {
      const { columns } = plan(null, width, 380)
      const all = Object.values(columns).sort((a, b) => a.x - b.x)
      for (let i = 1; i < all.length; i++) expect(all[i].x).toBeCloseTo(all[i - 1].x + all[i - 1].width, 9)
      expect(all.at(-1)!.x + all.at(-1)!.width).toBeLessThanOrEqual(width)
    }
  })

  it('draws volts, millimetres and metres each on one scale', () => {
    const e = {
      mainRun: { cable: { areaMm2: 50, conductors: 1 }, laid: { lengthM: 2.5 } },
      voltage: { nominalV: 25.6 },
      inverter: {},
      charging: { sources: [] },
      circuits: [],
    } as unknown as Parameters<typeof plan>[0]
    const p = plan(e, 1280, 380)
    // 50 mm² are 7.98 mm across.
    expect(p.thick / p.pxPerMm).toBeCloseTo(7.98, 2)
    expect(p.yMinus - p.yPlus - p.thick).toBeCloseTo(25.6 * p.pxPerV, 6)
    expect(p.pxPerM * 2.5).toBeCloseTo(p.inverterX - p.post, 6)
    expect(p.lanes).toEqual([])
  })

  it('takes up to four sources each on a lane of its own, over the bank', () => {
    const e = {
      mainRun: { cable: { areaMm2: 50, conductors: 1 }, laid: { lengthM: 2.5 } },
      voltage: { nominalV: 25.6 },
      inverter: {},
      charging: { sources: Array.from({ length: 7 }, (_, i) => ({ id: `s${i}` })) },
      circuits: [{ id: 'source-s1', run: { cable: { areaMm2: 16 } } }],
    } as unknown as Parameters<typeof plan>[0]
    const { lanes, yPlus } = plan(e, 1280, 420)
    expect(lanes).toHaveLength(MOST_SOURCES)
    for (let i = 1; i < lanes.length; i++) {
      expect(lanes[i].y - lanes[i - 1].y).toBeGreaterThanOrEqual((lanes[i].thick + lanes[i - 1].thick) / 2)
      expect(lanes[i].row).toBeGreaterThan(lanes[i - 1].row)
      expect(lanes[i].riser).toBeGreaterThan(lanes[i - 1].riser)
    }
    expect(lanes[1].thick).toBeGreaterThan(lanes[0].thick)
    expect(lanes.at(-1)!.y).toBeLessThan(yPlus)
  })

  it('gives the rows of sources what height there is', () => {
    expect(sourceRows(2, 50, 400)).toEqual({ pitch: 34, first: 67 })
    const { pitch, first } = sourceRows(5, 50, 158)
    expect(pitch).toBe(24)
    expect(first + 4 * pitch + pitch / 2).toBe(170)
  })
})
