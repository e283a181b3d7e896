/**
 * A drawing is one tab stop: arrow keys move between its figures and parts, Enter presses, Escape goes back to the drawing.
 * Parts carry `data-stop` and a tabindex of −1.
 */
export function stops(node: SVGElement | HTMLElement) {
  function parts() {
    return [...node.querySelectorAll<SVGElement | HTMLElement>('[data-stop]')]
  }
  function key(e: KeyboardEvent) {
    // What is held in hand has the keys to itself.
    if ((e.target as Element).closest('input, select, textarea, [data-held]')) return
    const forward = e.key === 'ArrowRight' || e.key === 'ArrowDown'
    if (forward || e.key === 'ArrowLeft' || e.key === 'ArrowUp') {
      const list = parts()
      if (list.length === 0) return
      e.preventDefault()
      const at = list.indexOf(document.activeElement as HTMLElement)
      const next = at < 0 ? (forward ? 0 : list.length - 1) : (at + (forward ? 1 : -1) + list.length) % list.length
      list[next].focus()
    } else if (e.key === 'Escape' && document.activeElement !== node) {
      e.stopPropagation()
      node.focus()
    } else if (
      (e.key === 'Enter' || e.key === ' ') &&
      document.activeElement instanceof SVGElement &&
      document.activeElement !== node
    ) {
      e.preventDefault()
      document.activeElement.dispatchEvent(new MouseEvent('click', { bubbles: true }))
    }
  }
  node.addEventListener('keydown', key as EventListener)
  return { destroy: () => node.removeEventListener('keydown', key as EventListener) }
}
