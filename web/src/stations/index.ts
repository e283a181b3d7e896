import type { Station } from '../api/client'
import type { StationData } from './station'

/** Every folder here with a `station.ts` is a station: a new one joins by being there. */
const found = import.meta.glob<{ station: StationData }>('./*/station.ts', { eager: true })

export const stations: StationData[] = Object.values(found)
  .map((module) => module.station)
  .sort((a, b) => a.number - b.number)

const byId = new Map(stations.map((s) => [s.id, s]))

export function stationOf(id: Station): StationData {
  return byId.get(id)!
}
