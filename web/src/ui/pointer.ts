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

/**
 * Whether what is kept is what was sent: fields that were not said are filled in by the server, and only what was just added leaves any
 * unsaid.
 */
export function keptAs(sent: unknown, kept: unknown): boolean {
  if (Array.isArray(sent))
    return Array.isArray(kept) && sent.length === kept.length && sent.every((v, i) => keptAs(v, kept[i]))
  if (isObject(sent)) return isObject(kept) && Object.keys(sent).every((key) => keptAs(sent[key], kept[key]))
  return (sent ?? null) === (kept ?? null)
}

/** The changes that make one document of another: as few and as deep as they can be said by pointers. */
export function changesBetween(before: unknown, after: unknown, path = ''): Change[] {
  // Most of a changed document is shared with the one before.
  if (before === after) return []
  if (isObject(before) && isObject(after) && Object.keys(before).every((key) => key in after))
    return Object.keys(after).flatMap((key) =>
      key in before
        ? changesBetween(before[key], after[key], `${path}/${key}`)
        : { path: `${path}/${key}`, value: after[key] },
    )
  if (Array.isArray(before) && Array.isArray(after)) {
    if (before.length === after.length)
      return before.flatMap((value, i) => changesBetween(value, after[i], `${path}/${i}`))
    if (before.length < after.length && before.every((value, i) => changesBetween(value, after[i]).length === 0))
      return after.slice(before.length).map((value: unknown) => ({ path: `${path}/-`, value }))
  }
  return [{ path, value: after }]
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
