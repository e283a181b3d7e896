import { api } from '../../api/client'
import type { Joining } from '../../api/client'
import { session } from '../../app/session.svelte'
import { newest, orBefore } from '../../ui/newest'

/** How full a side is said to be for the moment: by charge, by rest volts, or as the document has it. */
interface Said {
  string: number | null
  soc: number | null
  restV: number | null
}

const asTheDocumentHasIt = (): Said => ({ string: null, soc: null, restV: null })

/** Two strings about to be joined. Nothing of it is kept. */
class JoiningBench {
  a = $state(asTheDocumentHasIt())
  b = $state(asTheDocumentHasIt())
  answer = $state.raw<Joining | null>(null)

  ask = newest(async () => {
    const [a, b] = [this.a, this.b]
    this.answer = await orBefore(session.worked, this.answer, (design) =>
      api.joining(design, session.bankIndex, {
        a: a.string ?? undefined,
        socA: a.soc ?? undefined,
        restA: a.restV ?? undefined,
        b: b.string ?? undefined,
        socB: b.soc ?? undefined,
        restB: b.restV ?? undefined,
      }),
    )
  })

  put(side: 'a' | 'b', said: Partial<Said>) {
    this[side] = { ...this[side], ...said }
    void this.ask()
  }

  /** Another string on one side; the same on both sides is no pair. */
  pick(side: 'a' | 'b', string: number) {
    const other = side === 'a' ? 'b' : 'a'
    const mine = this.answer?.[side].string
    if (this.answer?.[other].string === string && mine) this[other] = { ...asTheDocumentHasIt(), string: mine }
    else this[other] = { ...this[other], string: this.answer?.[other].string ?? null }
    this.put(side, { ...asTheDocumentHasIt(), string })
  }

  reset() {
    this.a = asTheDocumentHasIt()
    this.b = asTheDocumentHasIt()
    this.answer = null
  }
}

export const joining = new JoiningBench()
