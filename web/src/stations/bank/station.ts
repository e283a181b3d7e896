import { say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'bank',
  number: 4,
  name: 'Bank',
  leads: ['/network/worstA', '/bank/usableWh'],
  along: 1,
  live: (e) => {
    if (!e.bank) return line('choose a unit')
    const form = `${e.bank.series}S${e.bank.parallel}P`
    return e.network && e.bank.parallel > 1
      ? line(`${form}, worst string`, say(e.network.worstShare, 'fraction'))
      : line(`${form},`, say(e.bank.usableWh, 'Wh'), 'usable')
  },
}
