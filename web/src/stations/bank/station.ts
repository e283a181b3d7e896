import { say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'bank',
  number: 4,
  name: 'Bank',
  leads: ['/network/strings/worstA', '/bank/holds/usableWh'],
  along: 1,
  live: (e) => {
    if (!e.bank) return line('choose a unit')
    const form = `${e.bank.layout.series}S${e.bank.layout.parallel}P`
    return e.network && e.bank.layout.parallel > 1
      ? line(`${form}, worst string`, say(e.network.strings.worstShare, 'fraction'))
      : line(`${form},`, say(e.bank.holds.usableWh, 'Wh'), 'usable')
  },
}
