import type { BankEvaluation, Station } from '../api/client'

/** A station's one live line: words and one figure. */
export interface Live {
  before: string
  figure: string
  after: string
}

/** What the rest of the bench knows of a station. Its page and its notes are the components beside this file. */
export interface StationData {
  id: Station
  number: number
  name: string
  /** The figure it is about; the second where the first is not worked out. */
  leads: string[]
  /** Where it stands on the circuit, sources left, loads right. */
  along: number
  /** On a phone what is wrong stands before the drawings. */
  findingsFirst?: boolean
  /** Rules of other stations that its instrument shows too: their findings stand here as well. */
  also?: string[]
  live: (e: BankEvaluation) => Live
}

export const line = (before: string, figure = '', after = ''): Live => ({ before, figure, after })
