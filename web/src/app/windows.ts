/**
 * Each window has a name of its own, under which its edits wait; a reload keeps it. A tab that was duplicated comes with its twin's name and
 * takes another. Names are held by a lock that ends with the window, or where there are no locks (a page that is not from this machine) by
 * asking the others.
 */
const KEY = 'inky-badger.window'
const PATIENCE_MS = 400

const lockOf = (name: string) => `inky-badger.window.${name}`
const channel = 'BroadcastChannel' in window ? new BroadcastChannel('inky-badger.windows') : null
let mine: string | null = null

if (channel)
  channel.onmessage = (e: MessageEvent<{ ask?: string; here?: string }>) => {
    if (e.data.ask && e.data.ask === mine) channel.postMessage({ here: mine })
  }

/** This window's name, once it is certain that no other one has it. */
export const windowName: Promise<string> = claim()

async function claim(): Promise<string> {
  let name = remembered() ?? make()
  if (!(await hold(name))) {
    name = make()
    await hold(name)
  }
  try {
    sessionStorage.setItem(KEY, name)
  } catch {
    // Then a reload is another window, and finds what this one left.
  }
  return (mine = name)
}

function remembered(): string | null {
  try {
    return sessionStorage.getItem(KEY)
  } catch {
    return null
  }
}

function make(): string {
  return Math.random().toString(36).slice(2, 10)
}

/** Takes a name for as long as this window lives; false when another one has it. A window that is just closing gets a moment to let go. */
async function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return !(await answers(name))
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(name), { signal: AbortSignal.timeout(PATIENCE_MS) }, () => {
        resolve(true)
        return new Promise(() => {})
      })
      .catch(() => resolve(false))
  })
}

function answers(name: string): Promise<boolean> {
  if (!channel) return Promise.resolve(false)
  return new Promise((resolve) => {
    const hear = (e: MessageEvent<{ here?: string }>) => {
      if (e.data.here === name) done(true)
    }
    const timer = setTimeout(() => done(false), PATIENCE_MS)
    function done(there: boolean) {
      clearTimeout(timer)
      channel!.removeEventListener('message', hear)
      resolve(there)
    }
    channel.addEventListener('message', hear)
    channel.postMessage({ ask: name })
  })
}

/** Whether a window of that name is open now. */
export async function isOpen(name: string): Promise<boolean> {
  if (!navigator.locks) return answers(name)
  const { held, pending } = await navigator.locks.query()
  return [...(held ?? []), ...(pending ?? [])].some((l) => l.name === lockOf(name))
}
