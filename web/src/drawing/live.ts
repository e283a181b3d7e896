import type { BankEvaluation, Station, YearInstant } from '../api/client'
import { num, say, stringName } from '../ui/quantity'
import { stationOf, stations } from '../stations'
import { line } from '../stations/station'
import type { Live } from '../stations/station'

/** A station's one live line. */
export function live(station: Station, e: BankEvaluation | null): Live {
  return e ? stationOf(station).live(e) : line('nothing yet')
}

/** The stations in the order of the circuit, sources left, loads right. */
export const circuit: Station[] = stations.toSorted((a, b) => a.along - b.along).map((s) => s.id)

/** The same at an instant of its year. */
export function liveAt(station: Station, e: BankEvaluation | null, at: YearInstant): Live {
  if (!e) return line('nothing yet')
  switch (station) {
    case 'charging': {
      const giving = at.sources.filter((s) => s.watts >= 0.5).toSorted((a, b) => b.watts - a.watts)
      if (giving.length === 0) return line('nothing comes in')
      const name = e.charging?.sources.find((s) => s.id === giving[0].id)?.name || 'a source'
      return line(name, say(giving[0].watts, 'W'), giving.length > 1 ? `and ${giving.length - 1} more` : '')
    }
    case 'bank': {
      const out = at.strings.findIndex((s) => s.isOut)
      const amps = say(-at.bankA, 'A')
      if (out >= 0 && at.strings.length > 1) return line(`string ${stringName(out + 1)} open`, amps)
      return line(`${num(at.soc * 100, 1)} %,`, amps)
    }
    case 'cables':
      return line('through the fuse', say(Math.abs(at.bankA), 'A'))
    case 'voltage':
      return at.volts > 0 ? line('', say(at.volts, 'V'), 'at the bus') : line('nothing on the bus')
    case 'inverter':
      if (at.passed) return line('AC passed through')
      return at.inverterOn ? line('', say(at.inverterW, 'W')) : line('off')
    case 'loads': {
      if (at.dark) return line('asked for, and', 'dark')
      const most = at.loads.filter((l) => l.watts > 0).toSorted((a, b) => b.watts - a.watts)[0]
      return most ? line(most.name || 'unnamed', say(most.watts, 'W'), 'most of it') : line('nothing runs')
    }
  }
}
