import { Refused } from '../api/client'

/** One question at a time: while an answer is on its way only the newest one waits, and is asked next. */
export function newest(question: () => Promise<void>): () => Promise<void> {
  let [busy, again] = [false, false]
  return async () => {
    again = true
    if (busy) return
    busy = true
    try {
      while (again) {
        again = false
        await question()
      }
    } finally {
      busy = false
    }
  }
}

/**
 * What is answered about a document that is there; null where it is refused; where nobody answers, what there was before,
 * and that nobody did is told.
 */
export async function orBefore<D, T>(
  design: D | null,
  before: T | null,
  ask: (design: D) => Promise<T | null>,
  tell: (away: string | null) => void = () => {},
): Promise<T | null> {
  if (!design) return null
  try {
    const answer = await ask(design)
    tell(null)
    return answer
  } catch (e) {
    tell(e instanceof Refused ? null : e instanceof Error ? e.message : 'The server does not answer.')
    return e instanceof Refused ? null : before
  }
}
