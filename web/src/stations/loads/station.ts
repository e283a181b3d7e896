import { say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'loads',
  number: 1,
  name: 'Loads',
  leads: ['/energy/energyBankWh'],
  along: 6,
  live: (e) =>
    e.loads && e.energy
      ? line('', say(e.energy.energyBankWh, 'Wh'), 'a day from the bank')
      : line('add the first load'),
}
