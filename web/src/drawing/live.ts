import type { BankEvaluation, Station } from '../api/client'
import { num, say, sizeName } from '../ui/quantity'

/** A station's one live line: words and one figure. */
export function live(station: Station, e: BankEvaluation | null): { before: string; figure: string; after: string } {
  const line = (before: string, figure = '', after = '') => ({ before, figure, after })
  if (!e) return line('nothing yet')
  switch (station) {
    case 'loads':
      return e.loads && e.energy
        ? line('', say(e.energy.energyBankWh, 'Wh'), 'a day from the bank')
        : line('add the first load')
    case 'voltage':
      return e.currents ? line('', say(e.currents.bankWorstA, 'A'), 'at full load') : line('follows from the loads')
    case 'inverter': {
      const i = e.inverter
      if (!i) return line(e.bank || e.loads ? 'none' : 'after the loads')
      if (!i.item) return line('none fits', say(i.requiredContinuousW, 'W'))
      if (i.firstToGive !== null) {
        const demand = i.demands[i.firstToGive]
        return line('', num(demand.watts), `W, gives ${num(demand.givesW)}`)
      }
      return line('start', num(i.requiredSurgeW), 'W, held')
    }
    case 'bank': {
      if (!e.bank) return line('choose a unit')
      const form = `${e.bank.series}S${e.bank.parallel}P`
      return e.network && e.bank.parallel > 1
        ? line(`${form}, worst string`, say(e.network.worstShare, 'fraction'))
        : line(`${form},`, say(e.bank.usableWh, 'Wh'), 'usable')
    }
    case 'cables': {
      const r = e.mainRun
      if (!r) return line('follows from the loads')
      if (!r.size) return line('no cable meets it')
      const cable = sizeName(r.size, r.conductors)
      return r.ratingA ? line('fuse', say(r.ratingA, 'rating'), `on ${cable}`) : line(`${cable}, no fuse`)
    }
    default:
      return line('')
  }
}

/** The stations in the order of the circuit, sources left, loads right. */
export const circuit: Station[] = ['bank', 'cables', 'voltage', 'inverter', 'loads']
