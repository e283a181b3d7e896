import type { Change, Design } from '../api/client'

/** A place at which two documents differ, in words. */
export interface Difference {
  pointer: string
  label: string
  theirs: string
  mine: string
}

const words: Record<string, string> = {
  lengthM: 'length',
  systemV: 'system voltage',
  watts: 'watts',
  amps: 'amperes',
  surgeWatts: 'start watts',
  startSeconds: 'start seconds',
  onH: 'hours left on',
  ratingA: 'rating',
  distanceM: 'post to fuse',
  windows: 'times of day',
  hours: 'hours a day',
  parallel: 'parallel',
  series: 'in series',
  item: 'inverter',
  unit: 'unit',
  own: 'own house rules',
}

/** Lists every place at which two documents differ; a whole entry that only one of them has is one place. */
export function differences(theirs: Design, mine: Design): Difference[] {
  const found: Difference[] = []
  walk('', theirs, mine, [], found)
  return found
}

function walk(pointer: string, a: unknown, b: unknown, names: string[], found: Difference[]) {
  if (JSON.stringify(a) === JSON.stringify(b)) return
  if (isObject(a) && isObject(b)) {
    // A unit or inverter that was changed for another is one difference, not twenty.
    if ('key' in a && a.key !== b.key) return add(pointer, a, b, names, found)
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)]))
      walk(`${pointer}/${key}`, a[key], b[key], [...names, words[key] ?? key], found)
  } else if (Array.isArray(a) && Array.isArray(b) && [...a, ...b].every((x) => isObject(x) && 'id' in x)) {
    for (const id of new Set([...a, ...b].map((x) => (x as { id: string }).id))) {
      const [x, y] = [a, b].map(
        (list) => list.find((e) => (e as { id: string }).id === id) as Record<string, unknown> | undefined,
      )
      const name = String((y ?? x)?.name || id)
      walk(`${pointer}/${id}`, x, y, [...names.slice(0, -1), name], found)
    }
  } else add(pointer, a, b, names, found)
}

function add(pointer: string, a: unknown, b: unknown, names: string[], found: Difference[]) {
  const plain = names.filter((n) => !['banks', 'demand', 'wiring', 'fuse', 'display', 'houseRules'].includes(n))
  found.push({ pointer, label: plain.slice(-3).join(', ') || 'the design', theirs: written(a), mine: written(b) })
}

/** A change of a document in words: what becomes what. */
export function said(change: Change): string {
  const names = change.path
    .split('/')
    .filter(
      (n) =>
        n !== '' &&
        n !== '-' &&
        !/^\d+$/.test(n) &&
        !['banks', 'demand', 'wiring', 'fuse', 'display', 'houseRules'].includes(n),
    )
    .map((n) => words[n] ?? n)
  return `${names.slice(-3).join(', ') || 'the design'}: ${written(change.value)}`
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function written(value: unknown): string {
  if (value === null || value === undefined) return 'none, or as advised'
  if (isObject(value)) return String(value.name ?? (value.size || JSON.stringify(value).slice(0, 60)))
  const text = typeof value === 'string' ? value : JSON.stringify(value)
  return text.length > 60 ? text.slice(0, 59) + '…' : text
}
