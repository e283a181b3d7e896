import { num, say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'inverter',
  number: 3,
  name: 'Inverter',
  leads: ['/currents/inverterWorstA'],
  along: 4,
  live: (e) => {
    const i = e.inverter
    if (!i) return line(e.bank || e.loads ? 'none' : 'after the loads')
    if (!i.item) return line('none fits', say(i.wanted.continuousW, 'W'))
    if (i.firstToGive !== null) {
      const demand = i.demands[i.firstToGive]
      return line('', num(demand.watts), `W, gives ${num(demand.givesW)}`)
    }
    return line('start', num(i.wanted.surgeW), 'W, held')
  },
}
