import { say } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'charging',
  number: 6,
  name: 'Charging',
  leads: ['/charging/plug/hoursADay', '/charging/wants/absorbV'],
  along: 0,
  findingsFirst: true,
  // What crosses on the volt scale.
  also: ['load.window', 'fuse.voltage', 'bank.real-volts'],
  live: (e) => {
    const c = e.charging
    if (!c) return line('follows from the bank')
    if (c.sources.length === 0) return line('nothing charges it yet')
    if (c.worst === null) return line(c.monthsWait ?? '')
    const month = c.months[c.worst]
    // What is plugged in or started comes last: its hours are chosen.
    const free = month.bySource.map((wh, i) =>
      c.sources[i].kind === 'mains' || c.sources[i].kind === 'generator' ? wh / 1e6 : wh,
    )
    const most = free.indexOf(Math.max(...free))
    const need = say(month.needWh, 'Wh')
    const gives = say(month.bySource[most] ?? 0, 'Wh')
    const alike = gives.split(' ')[1] === need.split(' ')[1]
    return line('', alike ? gives.split(' ')[0] : gives, `of ${need} by ${c.sources[most].name.toLowerCase()}`)
  },
}
