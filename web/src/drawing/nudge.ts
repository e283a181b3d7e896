/** Steps a label is moved by until nothing else is written where it stands [px]. */
const STEPS = [0, -13, 13, -26, 26, -39, 39, -52, 52]

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

/** The box of the letters: a line's own box is taller than they are. */
function ink(e: Element): Box {
  const { left, right, top, bottom } = e.getBoundingClientRect()
  const spare = (bottom - top) * 0.14
  return { left, right, top: top + spare, bottom: bottom - spare }
}

/**
 * Labels that give way (`data-give`) go up or down until they stand on no other text, in their order; one for which there is no room is not
 * written, and says itself to those who point at what it belongs to.
 */
export function nudge(svg: SVGSVGElement) {
  let frame = 0
  function place() {
    frame = 0
    const giving = [...svg.querySelectorAll<SVGGraphicsElement>('[data-give]')]
    if (giving.length === 0) return
    for (const e of giving) {
      e.removeAttribute('transform')
      e.style.visibility = ''
    }
    const room = svg.getBoundingClientRect()
    const taken = [...svg.querySelectorAll('text')].filter((t) => !t.closest('[data-give]')).map(ink)
    for (const e of giving) {
      const box = ink(e)
      const step = STEPS.find((d) => {
        const at = { ...box, top: box.top + d, bottom: box.bottom + d }
        return at.top >= room.top && at.bottom <= room.bottom && !taken.some((t) => meet(at, t))
      })
      if (step === undefined) {
        e.style.visibility = 'hidden'
        continue
      }
      if (step !== 0) e.setAttribute('transform', `translate(0 ${step})`)
      taken.push({ ...box, top: box.top + step, bottom: box.bottom + step })
    }
  }
  // Measuring takes some milliseconds: the figures come first, and the labels stay where they were until nothing changes for a moment.
  let timer: ReturnType<typeof setTimeout> | undefined
  const soon = () => {
    clearTimeout(timer)
    timer = setTimeout(() => (frame ||= requestAnimationFrame(place)), 40)
  }
  const watch = new MutationObserver(soon)
  watch.observe(svg, {
    childList: true,
    characterData: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['x', 'y', 'width', 'height', 'text-anchor', 'data-give'],
  })
  soon()
  void document.fonts.ready.then(soon)
  return {
    destroy() {
      clearTimeout(timer)
      cancelAnimationFrame(frame)
      watch.disconnect()
    },
  }
}
