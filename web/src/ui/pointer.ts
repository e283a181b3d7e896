import type { Change } from '../api/client'

/** What stands at a JSON pointer, or undefined. */
export function at(root: unknown, pointer: string): unknown {
  let here = root
  for (const segment of pointer.split('/').slice(1)) {
    if (here === null || here === undefined) return undefined
    here = (here as Record<string, unknown>)[segment]
  }
  return here
}

/** The document with changes applied; what does not change is shared with the old one. */
export function withChanges<T>(root: T, changes: Change[]): T {
  return changes.reduce((doc, c) => set(doc, c.path.split('/').slice(1), c.value) as T, root)
}

function set(here: unknown, path: string[], value: unknown): unknown {
  if (path.length === 0) return value
  const [segment, ...rest] = path
  if (Array.isArray(here)) {
    const copy = [...here]
    if (segment === '-') copy.push(value)
    else copy[Number(segment)] = set(copy[Number(segment)], rest, value)
    return copy
  }
  const object = (here ?? {}) as Record<string, unknown>
  return { ...object, [segment]: set(object[segment], rest, value) }
}
