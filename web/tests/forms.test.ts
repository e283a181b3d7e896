import { describe, expect, it, vi } from 'vitest'
import type { Schedules, Source } from '../src/api/client'

const session = vi.hoisted(() => ({
  design: null as unknown,
  reference: {
    practices: [
      {
        id: 'craft-metric-90',
        series: 'metric',
        insulationC: 90,
        referenceC: 30,
        sizes: [
          { size: '16 mm²', areaMm2: 16, ampacityA: 100 },
          { size: '50 mm²', areaMm2: 50, ampacityA: 230 },
        ],
      },
      {
        id: 'craft-awg-105',
        series: 'awg',
        insulationC: 105,
        referenceC: 30,
        sizes: [{ size: '2 AWG', areaMm2: 33.63 }],
      },
    ],
    fuseClasses: [{ id: 'class-t', label: 'Class T, bolted', maxDcV: 160, interruptA: 20000, ratingsA: [100, 200] }],
  },
}))
vi.mock('../src/app/session.svelte', () => ({ session }))

const { Refused } = await import('../src/api/client')
const { areaOf, fuseClasses, practiceName, practices, sizes } = await import('../src/app/tables')
const { kinds, newSource } = await import('../src/stations/charging/sources')
const { conductorName } = await import('../src/stations/bank/conductors')
const { RunDownPaper } = await import('../src/stations/bank/runDownPaper')
const { readPoints } = await import('../src/stations/inverter/points')
const { perRun } = await import('../src/summary/rows')
const { readAll } = await import('../src/ui/itemForm')
const { limitsAt, refusal } = await import('../src/ui/limits')
const { newest, orBefore } = await import('../src/ui/newest')

describe('the form of an item of one’s own', () => {
  const fields = [
    { key: 'name', label: 'Name', kind: 'text' as const, needed: true, pointer: '/name' },
    { key: 'ah', label: 'Capacity', kind: 'charge' as const, needed: true, pointer: '/ah' },
    { key: 'watts', label: 'Power', kind: 'power' as const, pointer: '/watts' },
    { key: 'kg', label: 'Mass', kind: 'number' as const, pointer: '/kg', fits: (v: number) => v < 100 },
  ]

  it('is read whole, and tells all that is wrong at once', () => {
    const { values, wrong } = readAll(fields, { name: '  ', ah: 'lots', watts: '1.5 kW' })
    expect(values).toEqual({ name: null, ah: null, watts: 1500, kg: null })
    expect(wrong.name).toEqual({ reason: 'is needed' })
    expect(wrong.ah.reason).toContain('is not a number')
    expect(Object.keys(wrong)).toEqual(['name', 'ah'])
  })

  it('offers both readings of a comma, and takes the one that fits', () => {
    expect(readAll(fields, { name: 'a', ah: '280', kg: '1,234' }).values.kg).toBe(1.234)
    const two = readAll([{ ...fields[3], fits: () => true }], { kg: '1,234' })
    expect(two.wrong.kg.choices).toEqual([1.234, 1234])
  })
})

describe('what the schema says of a field', () => {
  it('is found by its pointer, through lists and references', () => {
    expect(limitsAt('/name').type).toContain('string')
    expect(limitsAt('/banks/0/parallel').type).toContain('integer')
    expect(limitsAt('/banks/0/demand/loads/3/quantity').minimum).toBe(0)
    expect(limitsAt('/no/such/place')).toEqual({})
  })

  it('is told in words, with the bound as the field writes it', () => {
    const write = (v: number) => `${v} pieces`
    expect(refusal('/banks/0/demand/loads/0/quantity', -1, write)).toBe('must be 0 pieces or more')
    expect(refusal('/banks/0/demand/loads/0/quantity', 1.5, write)).toBe('must be a whole number')
    expect(refusal('/banks/0/demand/loads/0/quantity', 2, write)).toBeNull()
    expect(refusal('/banks/0/demand/loads/0/quantity', 1e9, write)).toMatch(/^must be \d+ pieces or less$/)
  })
})

describe('one question at a time', () => {
  it('asks once more for all that was asked meanwhile', async () => {
    let [asked, go] = [0, () => {}]
    const ask = newest(async () => {
      asked++
      if (asked === 1) await new Promise<void>((later) => (go = later))
    })
    const first = ask()
    void ask()
    void ask()
    expect(asked).toBe(1)
    go()
    await first
    expect(asked).toBe(2)
  })

  it('asks again after one that failed', async () => {
    let asked = 0
    const ask = newest(async () => {
      asked++
      if (asked === 1) throw new Error('away')
    })
    await expect(ask()).rejects.toThrow('away')
    await ask()
    expect(asked).toBe(2)
  })

  it('keeps what there was where nobody answers, and nothing of what is refused', async () => {
    const told: (string | null)[] = []
    const tell = (t: string | null) => told.push(t)
    expect(await orBefore(null, 'old', async () => 'new', tell)).toBeNull()
    expect(await orBefore({}, 'old', async () => 'new', tell)).toBe('new')
    const away = () => Promise.reject(new Error('The server does not answer.'))
    expect(await orBefore({}, 'old', away, tell)).toBe('old')
    const no = () => Promise.reject(new Refused(400, 'no', []))
    expect(await orBefore({}, 'old', no, tell)).toBeNull()
    expect(told).toEqual([null, 'The server does not answer.', null])
  })
})

describe('overload points', () => {
  it('are read with either part between them', () => {
    const points = [
      { seconds: 0.5, watts: 6000 },
      { seconds: 5, watts: 4500 },
      { seconds: 120, watts: 3300 },
    ]
    expect(readPoints('0.5 s 6000 W; 5 s 4.5 kW; 2 min 3300')).toEqual({ points })
    expect(readPoints('0.5 s: 6 kW, 5 s 4500 W, 120 s 3300 W,')).toEqual({ points })
    expect(readPoints(' ')).toEqual({ points: [] })
  })

  it('say which of them is none', () => {
    expect(readPoints('5 s 4500 W; often')).toEqual({ reason: '“often” is not a point such as 5 s 4500 W' })
    expect(readPoints('5 s 3 Ah')).toHaveProperty('reason')
  })
})

describe('tables, typical and of one’s own', () => {
  it('stand together, the own ones by their area', () => {
    session.design = {
      tables: {
        conductors: [{ size: 'welding 35', areaMm2: 35.2 }],
        practices: [
          {
            id: 'own-1',
            label: 'Welding cable, the maker’s sheet',
            insulationC: 80,
            referenceC: 25,
            rows: [
              { size: '50 mm²', ampacityA: 285 },
              { size: 'welding 35', ampacityA: 210 },
              { size: 'nobody’s', ampacityA: 1 },
            ],
          },
        ],
        fuses: [{ id: 'f', label: 'Bolt-in', maxDcV: 80, interruptA: 4000, ratingsA: [150], points: [] }],
      },
    }
    const own = practices().at(-1)!
    expect(own.series).toBe('metric')
    expect(own.sizes.map((s) => [s.size, s.areaMm2, s.ampacityA])).toEqual([
      ['nobody’s', 0, 1],
      ['welding 35', 35.2, 210],
      ['50 mm²', 50, 285],
    ])
    expect(own.sizes[2].diameterMm).toBeCloseTo(2 * Math.sqrt(50 / Math.PI), 6)
    expect(areaOf('2 AWG')).toBe(33.63)
    expect(areaOf('51 mm²')).toBeNull()
    expect(sizes()).toEqual(['nobody’s', '16 mm²', '2 AWG', 'welding 35', '50 mm²'])
    expect(practiceName('own-1')).toBe('Welding cable, the maker’s sheet')
    expect(practiceName('craft-metric-90')).toBe('craft metric 90 °C')
    expect(fuseClasses().map((f) => f.label)).toEqual(['Class T, bolted', 'Bolt-in'])
  })

  it('are the typical ones where there is no design', () => {
    session.design = null
    expect(practices()).toHaveLength(2)
    expect(fuseClasses()).toHaveLength(1)
    expect(sizes()).toEqual(['16 mm²', '2 AWG', '50 mm²'])
  })
})

describe('a new source', () => {
  it('has what its kind needs and nothing said, under a name of its own', () => {
    const others = [{ id: 's1' }, { id: 's3' }] as Source[]
    const made = kinds.map((k) => newSource(k.kind, k.name, others))
    expect(new Set(made.map((s) => s.id))).toEqual(new Set(['s2']))
    const has = (s: Source) => [s.array, s.engine, s.supply, s.wattsByHour].map((x) => x !== null)
    expect(Object.fromEntries(made.map((s) => [s.kind, has(s)]))).toEqual({
      solar: [true, false, false, false],
      'dc-dc': [false, true, false, false],
      alternator: [false, true, false, false],
      mains: [false, false, true, false],
      generator: [false, false, true, false],
      other: [false, false, false, true],
    })
    expect(made.at(-1)!.wattsByHour).toHaveLength(24)
    expect(made.every((s) => s.amps === null && s.settings.absorbV === null)).toBe(true)
  })
})

describe('names of copper', () => {
  const of = (c: object) => conductorName(c as Parameters<typeof conductorName>[0])
  it('say between which units or strings it lies', () => {
    expect(of({ kind: 'jumper', string: 2, after: 1 })).toBe('Jumper B1 to B2')
    expect(of({ kind: 'link', rail: 'positive', after: 3 })).toBe('Positive link C to D')
    expect(of({ kind: 'lead', rail: 'negative', string: 27 })).toBe('Negative lead of string AA')
  })
})

describe('the paper of a run-down', () => {
  const paper = new RunDownPaper(406, 241, 8, 100)

  it('leaves an eighth for the dark', () => {
    expect([paper.left, paper.right, paper.top, paper.bottom]).toEqual([56, 400, 22, 222])
    expect(paper.x(0)).toBe(56)
    expect(paper.x(8)).toBeCloseTo(56 + 344 * 0.88, 9)
    expect(paper.y(0)).toBe(222)
    expect(paper.y(50)).toBe(122)
    expect(paper.hours().every((h) => h <= 8)).toBe(true)
    expect(paper.values().at(-1)).toBe(100)
  })

  it('goes out and back over the same points', () => {
    expect(paper.line([0, 8], [0, 100])).toBe(`M56 222L${paper.end} 22`)
    expect(paper.back([0, 8], [0, 100])).toBe(`L${paper.end} 22L56 222`)
  })

  it('of a bank that never gave anything is dark at once', () => {
    expect(new RunDownPaper(406, 241, 0, 100).x(3)).toBe(56)
  })
})

describe('the cut list in runs', () => {
  type Cable = Schedules['cables'][number]
  const cable = (label: string, pole: string, from: string, to: string, size = '50 mm²', lengthM = 1) =>
    ({ label, pole, from, to, size, lengthM, fromLug: 'M8' }) as unknown as Cable

  it('has both poles of a run in one line, and the main run’s pieces behind each other', () => {
    const lines = perRun([
      cable('M1+', 'plus', 'the bank', 'the main fuse'),
      cable('M2+', 'plus', 'the main fuse', 'the bus'),
      cable('M1−', 'minus', 'the bank', 'the bus'),
      cable('R1+', 'plus', 'the bus', 'the fridge', '4 mm²', 3),
      cable('R1−', 'minus', 'the fridge', 'the bus', '4 mm²', 3),
    ])
    expect(lines.map((l) => [l.label, l.from, l.to, l.plus.length, l.minus.length])).toEqual([
      ['M', 'the bank', 'the bus', 2, 1],
      ['R1', 'the bus', 'the fridge', 1, 1],
    ])
  })

  it('counts links of one size and length together, others apart', () => {
    const lines = perRun([
      cable('L1', 'plus', 'A', 'B', '50 mm²', 0.35),
      cable('L2', 'plus', 'B', 'C', '50 mm²', 0.35),
      cable('L3', 'plus', 'C', 'D', '50 mm²', 0.5),
      cable('B1', 'minus', 'A', 'B', '50 mm²', 0.35),
    ])
    expect(lines.map((l) => l.plus.length + l.minus.length)).toEqual([2, 1, 1])
  })
})
