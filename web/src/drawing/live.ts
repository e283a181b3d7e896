import type { BankEvaluation, Station } from '../api/client'
import { stationOf, stations } from '../stations'
import { line } from '../stations/station'
import type { Live } from '../stations/station'

/** A station's one live line. */
export function live(station: Station, e: BankEvaluation | null): Live {
  return e ? stationOf(station).live(e) : line('nothing yet')
}

/** The stations in the order of the circuit, sources left, loads right. */
export const circuit: Station[] = stations.toSorted((a, b) => a.along - b.along).map((s) => s.id)
