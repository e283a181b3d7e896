import type { Design } from '../api/client'
import { session } from './session.svelte'

const PAUSE_MS = 250

/**
 * Something that is asked for apart and follows the design: after each evaluation, once a pause has passed, and only the answer to the
 * newest document counts. To be called while a component is set up.
 */
export function following<T>(ask: (design: Design, bank: number) => Promise<T[]>) {
  let list = $state.raw<T[]>([])

  async function again() {
    const design = session.worked
    if (!design) return
    try {
      const answer = await ask(design, session.bankIndex)
      if (session.worked === design) list = answer
    } catch {
      list = []
    }
  }

  $effect(() => {
    // Every evaluation, and every other bank, asks again.
    void session.bankIndex
    if (!session.evaluation) return
    const timer = setTimeout(() => void again(), PAUSE_MS)
    return () => clearTimeout(timer)
  })

  return {
    get list() {
      return list
    },
    again,
  }
}
