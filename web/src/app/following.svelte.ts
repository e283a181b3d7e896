import type { Design } from '../api/client'
import { session } from './session.svelte'

const PAUSE_MS = 250

/**
 * Something that is asked for apart and follows the design: after each evaluation, once a pause has passed, and only the answer to the
 * newest document counts. To be called while a component is set up.
 */
export function following<T>(ask: (design: Design, bank: number, signal: AbortSignal) => Promise<T[]>) {
  let list = $state.raw<T[]>([])
  let asked: AbortController | undefined

  async function again() {
    const design = session.worked
    if (!design) return
    // Nobody waits for the answer to an older document: the server need not go on with it.
    asked?.abort()
    const mine = (asked = new AbortController())
    try {
      const answer = await ask(design, session.bankIndex, mine.signal)
      if (session.worked === design) list = answer
    } catch {
      if (!mine.signal.aborted) list = []
    }
  }

  $effect(() => {
    // Every evaluation, and every other bank, asks again.
    void session.bankIndex
    if (!session.evaluation) return
    asked?.abort()
    const timer = setTimeout(() => void again(), PAUSE_MS)
    return () => {
      clearTimeout(timer)
      asked?.abort()
    }
  })

  return {
    get list() {
      return list
    },
    again,
  }
}
