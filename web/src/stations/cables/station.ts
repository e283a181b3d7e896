import { say, sizeName } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'cables',
  number: 5,
  name: 'Cables & fuses',
  leads: ['/mainRun/areaMm2'],
  along: 2,
  live: (e) => {
    const r = e.mainRun
    if (!r) return line('follows from the loads')
    if (!r.size) return line('no cable meets it')
    const cable = sizeName(r.size, r.conductors)
    return r.ratingA ? line('fuse', say(r.ratingA, 'rating'), `on ${cable}`) : line(`${cable}, no fuse`)
  },
}
