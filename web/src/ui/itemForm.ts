import { parse } from './quantity'
import type { Kind } from './quantity'

/** A field of an item of one's own, from its data sheet. */
export interface ItemField {
  key: string
  label: string
  kind: Kind | 'text'
  /** A made-up value, said as an example and never standing in the field. */
  example?: string
  needed?: boolean
  /** The group it is folded into; without one it stands first. */
  group?: string
  /** What counts where it is left empty. */
  left?: string
  /** Where the document's schema has it, for what the server refuses. */
  pointer: string
  fits?: (value: number) => boolean
}

export type Values = Record<string, number | string | null>

export interface Trouble {
  reason: string
  /** The readings to choose between. */
  choices?: number[]
}

/** Every field read; what is wrong with which, all at once. */
export function readAll(
  fields: ItemField[],
  texts: Record<string, string>,
): { values: Values; wrong: Record<string, Trouble> } {
  const values: Values = {}
  const wrong: Record<string, Trouble> = {}
  for (const field of fields) {
    const text = (texts[field.key] ?? '').trim()
    values[field.key] = null
    if (text === '') {
      if (field.needed) wrong[field.key] = { reason: 'is needed' }
      continue
    }
    if (field.kind === 'text') {
      values[field.key] = text
      continue
    }
    const parsed = parse(text, field.kind, 'metric', field.fits)
    if ('reason' in parsed) wrong[field.key] = parsed
    else values[field.key] = parsed.value
  }
  return { values, wrong }
}
