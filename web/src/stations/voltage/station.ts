import { say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'voltage',
  number: 2,
  name: 'Voltage',
  leads: ['/currents/bankWorstA', '/voltage/nominalV'],
  along: 3,
  live: (e) =>
    e.currents ? line('', say(e.currents.bankWorstA, 'A'), 'at full load') : line('follows from the loads'),
}
