import { session } from './session.svelte'

type Keys = Record<string, (e: KeyboardEvent) => void>

/**
 * Undo and redo by the keys of every place, with other keys of its own. In fields that match, the keys undo the text.
 *
 * @param but fields that have the keys to themselves; by itself those with text that is not kept yet.
 */
export function undoKeys(more: Keys = {}, but = '[data-typed], textarea, dialog'): Keys {
  const walk = (step: 'undo' | 'redo') => (e: KeyboardEvent) => {
    if ((e.target as HTMLElement).closest(but)) return
    e.preventDefault()
    void session.walk(step)
  }
  return {
    '$mod+z': walk('undo'),
    '$mod+Shift+z': walk('redo'),
    '$mod+y': walk('redo'),
    ...more,
  }
}
