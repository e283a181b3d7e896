import type { Evaluation } from '../../api/client'
import { stringName } from '../../ui/quantity'

export type PlacedAmps = NonNullable<Evaluation['banks'][number]['network']>['copper']['placed'][number]

/** A conductor as one would call it. */
export function conductorName(c: PlacedAmps): string {
  if (c.kind === 'jumper') return `Jumper ${stringName(c.string)}${c.after} to ${stringName(c.string)}${c.after + 1}`
  const rail = c.rail === 'positive' ? 'Positive' : 'Negative'
  return c.kind === 'link'
    ? `${rail} link ${stringName(c.after)} to ${stringName(c.after + 1)}`
    : `${rail} lead of string ${stringName(c.string)}`
}
