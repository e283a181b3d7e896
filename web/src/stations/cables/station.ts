import { say, sizeName } from '../../ui/quantity'
import { line } from '../station'
import type { StationData } from '../station'

export const station: StationData = {
  id: 'cables',
  number: 5,
  name: 'Cables & fuses',
  leads: ['/mainRun/cable/areaMm2'],
  along: 2,
  live: (e) => {
    const r = e.mainRun
    if (!r) return line('follows from the loads')
    if (!r.cable.size) return line('no cable meets it')
    const cable = sizeName(r.cable.size, r.cable.conductors)
    return r.fuse.ratingA ? line('fuse', say(r.fuse.ratingA, 'rating'), `on ${cable}`) : line(`${cable}, no fuse`)
  },
}
