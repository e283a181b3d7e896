import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { circuit, live } from '../src/drawing/live'
import { stations } from '../src/stations'
import type { BankEvaluation } from '../src/api/client'

const openapi = JSON.parse(readFileSync(new URL('../../docs/format/openapi.json', import.meta.url), 'utf8'))

describe('the stations', () => {
  it('are those of the core, each once, numbered in the order of the work', () => {
    expect(stations.map((s) => s.id)).toEqual(openapi.components.schemas.Station.enum)
    expect(stations.map((s) => s.number)).toEqual(stations.map((_, i) => i + 1))
    expect([...circuit].sort()).toEqual(stations.map((s) => s.id).sort())
  })

  it('lie on the circuit from the sources to the loads', () => {
    expect([circuit[0], circuit.at(-1)]).toEqual(['charging', 'loads'])
  })

  it('have a live line for a bank of which nothing is known yet', () => {
    const empty = { circuits: [], devices: [] } as unknown as BankEvaluation
    expect(live('loads', null).before).toBe('nothing yet')
    expect(live('loads', empty).before).toBe('add the first load')
    expect(live('bank', empty).before).toBe('choose a unit')
    expect(live('inverter', empty).before).toBe('after the loads')
    expect(live('cables', empty).before).toBe('follows from the loads')
    expect(live('charging', empty).before).toBe('follows from the bank')
  })

  it('say the figure they are about', () => {
    const e = {
      mainRun: { cable: { size: '35 mm²', conductors: 2 }, fuse: { ratingA: 200 } },
      currents: { bankWorstA: 1234 },
      bank: { layout: { series: 2, parallel: 4 }, holds: { usableWh: 8192 } },
      network: { strings: { worstShare: 0.263 } },
      charging: {
        worst: 0,
        months: [{ needWh: 3200, bySource: [1400, 4000] }],
        sources: [
          { name: 'Roof', kind: 'solar' },
          { name: 'Plug', kind: 'mains' },
        ],
      },
    } as unknown as BankEvaluation
    // The plug comes last, whatever it brings: its hours are chosen.
    expect(live('charging', e)).toEqual({ before: '', figure: '1.40', after: 'of 3.20 kWh by roof' })
    expect(live('cables', e)).toEqual({ before: 'fuse', figure: '200 A', after: 'on 2 × 35 mm²' })
    expect(live('voltage', e).figure).toBe('1.2 kA')
    expect(live('bank', e)).toEqual({ before: '2S4P, worst string', figure: '26.3 %', after: '' })
  })
})
