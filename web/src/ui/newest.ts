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

/** What is answered about a document that is there; null where it is refused; where nobody answers, what there was before. */
export async function orBefore<D, T>(
  design: D | null,
  before: T | null,
  ask: (design: D) => Promise<T | null>,
): Promise<T | null> {
  if (!design) return null
  try {
    return await ask(design)
  } catch (e) {
    return e instanceof Refused ? null : before
  }
}
