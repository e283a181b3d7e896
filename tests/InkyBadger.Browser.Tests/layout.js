// What is wrong with the page as it is laid out, by the boxes of what is drawn: text over text, text over an edge or crossed by a
// line, buttons that are cut off, letters under the limit. Gives a list of sentences.
return (() => {
  const LEAST_PX = 11
  const faults = new Set()
  const dialog = [...document.querySelectorAll('dialog[open]')].at(-1)
  const root = dialog ?? document.body
  const wide = document.documentElement.clientWidth
  const shown = (e) => e.checkVisibility({ visibilityProperty: true, opacityProperty: true })
  const says = (text) => text.replace(/\s+/g, ' ').trim().slice(0, 40)
  const where = (e) => {
    const at = e.closest('[data-testid], section, nav, header, aside, dialog, main, svg')
    return at ? (at.dataset?.testid ?? at.getAttribute('aria-label') ?? at.className?.baseVal ?? at.className ?? at.tagName) || at.tagName : ''
  }
  const cross = (a, b) => ({
    left: Math.max(a.left, b.left),
    right: Math.min(a.right, b.right),
    top: Math.max(a.top, b.top),
    bottom: Math.min(a.bottom, b.bottom),
  })
  const colour = (text) => (text.match(/[\d.]+/g) ?? []).map(Number)
  const light = ([r, g, b]) => {
    const part = (v) => ((v /= 255) <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
    return 0.2126 * part(r) + 0.7152 * part(g) + 0.0722 * part(b)
  }
  const contrast = (a, b) => {
    const [x, y] = [light(a), light(b)]
    return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05)
  }
  const sheet = colour(getComputedStyle(document.documentElement).getPropertyValue('--sheet').startsWith('#')
    ? (() => {
        const hex = getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim()
        return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)).join(',')
      })()
    : '255,255,255')

  // Every line of text with the box of its letters, cut to what its ancestors let be seen.
  const texts = []
  const walk = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
  for (let node = walk.nextNode(); node; node = walk.nextNode()) {
    const e = node.parentElement
    if (!node.data.trim() || ['SCRIPT', 'STYLE', 'OPTION', 'TITLE', 'title', 'TEXTAREA'].includes(e.tagName)) continue
    if (!shown(e) || e.closest('.sr-only, [aria-hidden=true]')) continue
    const style = getComputedStyle(e)
    const scale = e.ownerSVGElement ? Math.hypot(e.getScreenCTM().a, e.getScreenCTM().b) : 1
    const size = parseFloat(style.fontSize) * scale
    if (size < LEAST_PX - 0.05) faults.add(`letters of ${size.toFixed(1)} px: “${says(node.data)}” in ${where(e)}`)
    let seen = { left: -1e9, right: 1e9, top: -1e9, bottom: 1e9 }
    for (let up = e; up && up !== document.documentElement; up = up.parentElement) {
      const s = getComputedStyle(up)
      if (up instanceof SVGElement && up.tagName !== 'svg') continue
      if (s.overflowX !== 'visible' || s.overflowY !== 'visible') {
        const box = up.getBoundingClientRect()
        seen = cross(seen, {
          left: s.overflowX === 'visible' ? -1e9 : box.left,
          right: s.overflowX === 'visible' ? 1e9 : box.right,
          top: s.overflowY === 'visible' ? -1e9 : box.top,
          bottom: s.overflowY === 'visible' ? 1e9 : box.bottom,
        })
      }
    }
    const range = document.createRange()
    range.selectNodeContents(node)
    for (const box of range.getClientRects()) {
      if (box.width < 1) continue
      const middle = (box.top + box.bottom) / 2
      const ink = { left: box.left + 0.5, right: box.right - 0.5, top: middle - size * 0.36, bottom: middle + size * 0.36 }
      const seenInk = cross(ink, seen)
      if (seenInk.right - seenInk.left < 1 || seenInk.bottom - seenInk.top < 1) continue
      texts.push({ e, text: says(node.data), box: seenInk, whole: ink, size, style })
      if (ink.right > wide + 1 && seen.right > wide + 1) faults.add(`over the window’s edge: “${says(node.data)}” in ${where(e)}`)
    }
  }
  // Text over text.
  const rows = new Map()
  for (const t of texts)
    for (let row = Math.floor(t.box.top / 40); row <= Math.floor(t.box.bottom / 40); row++) {
      if (!rows.has(row)) rows.set(row, [])
      rows.get(row).push(t)
    }
  const done = new Set()
  for (const row of rows.values())
    for (let i = 0; i < row.length; i++)
      for (let j = i + 1; j < row.length; j++) {
        const [a, b] = [row[i], row[j]]
        // A line that ends in three dots is told of twice.
        if (a.e === b.e) continue
        const over = cross(a.box, b.box)
        if (over.right - over.left < 1.5 || over.bottom - over.top < 1.5) continue
        // What lies on a sheet of its own above the other hides it and is meant to.
        const layer = (t) => t.e.closest('.says, [popover], [role=listbox], .rest, .asking .say')
        if (layer(a) !== layer(b)) continue
        const key = `${a.text}|${b.text}`
        if (done.has(key)) continue
        done.add(key)
        faults.add(`text over text: “${a.text}” and “${b.text}” in ${where(a.e)}`)
      }
  // Buttons and what they say.
  for (const button of root.querySelectorAll('button, a, summary, select, input')) {
    if (!shown(button) || button.closest('.sr-only') || button.closest('svg')) continue
    const box = button.getBoundingClientRect()
    if (box.width < 2) continue
    const scrolls = (e) => {
      for (let up = e.parentElement; up; up = up.parentElement)
        if (['auto', 'scroll'].includes(getComputedStyle(up).overflowX) && up.scrollWidth > up.clientWidth + 1) return true
      return false
    }
    if (box.right > wide + 1 && !scrolls(button)) faults.add(`cut off at the window’s edge: ${button.tagName} “${says(button.innerText ?? button.value)}”`)
    const own = getComputedStyle(button)
    if (
      ['BUTTON', 'A', 'SUMMARY'].includes(button.tagName) &&
      own.overflowX !== 'visible' &&
      own.textOverflow !== 'ellipsis' &&
      button.scrollWidth > button.clientWidth + 1
    )
      faults.add(`cut off: ${button.tagName} “${says(button.innerText)}”`)
    // A figure's room for the finger may be cut where its letters are not.
    if (button.matches('.figure')) continue
    for (let up = button.parentElement; up && up !== root; up = up.parentElement) {
      const s = getComputedStyle(up)
      if (s.overflowX !== 'hidden' && s.overflowX !== 'clip') continue
      const edge = up.getBoundingClientRect()
      if (box.right > edge.right + 1 || box.left < edge.left - 1)
        faults.add(`cut off by its surroundings: ${button.tagName} “${says(button.innerText ?? button.value)}” in ${where(button)}`)
    }
  }
  // In drawings: text outside of the drawing, crossed by lines, or on a ground it cannot be read on.
  for (const svg of root.querySelectorAll('svg')) {
    if (!shown(svg) || svg.parentElement?.closest('svg')) continue
    const inside = texts.filter((t) => t.e.ownerSVGElement === svg || svg.contains(t.e))
    if (inside.length === 0) continue
    const frame = svg.getBoundingClientRect()
    const visible = getComputedStyle(svg).overflow === 'visible'
    const shapes = [...svg.querySelectorAll('line, path, rect, circle, polyline, polygon, ellipse')].filter(
      (s) => shown(s) && !s.closest('defs, clipPath, mask, marker, pattern'),
    )
    const order = new Map([...svg.querySelectorAll('*')].map((e, i) => [e, i]))
    const boxes = new Map(shapes.map((s) => [s, s.getBoundingClientRect()]))
    for (const t of inside) {
      if (!visible && (t.whole.right > frame.right + 1 || t.whole.left < frame.left - 1 || t.whole.bottom > frame.bottom + 1 || t.whole.top < frame.top - 1))
        faults.add(`over the drawing’s edge: “${t.text}” in ${where(svg)}`)
      const halo = t.style.stroke !== 'none' && parseFloat(t.style.strokeWidth) >= 2 && t.style.paintOrder.startsWith('stroke')
      const ink = colour(t.style.fill)
      const points = []
      for (const y of [0.2, 0.5, 0.8])
        for (let x = 0; x <= 1.0001; x += Math.min(0.2, 3 / (t.box.right - t.box.left)))
          points.push([t.box.left + (t.box.right - t.box.left) * x, t.box.top + (t.box.bottom - t.box.top) * y])
      // The topmost ground under each point; lines above or below it that are darker than a grid.
      let crossed = 0
      const grounds = points.map(() => sheet)
      for (const s of shapes) {
        const b = boxes.get(s)
        if (b.right < t.box.left || b.left > t.box.right || b.bottom + 3 < t.box.top || b.top - 3 > t.box.bottom) continue
        if (!order.has(t.e) || (order.get(s) > order.get(t.e) && getComputedStyle(s).pointerEvents === 'all')) continue
        const style = getComputedStyle(s)
        const matrix = s.getScreenCTM()
        if (!matrix) continue
        const back = matrix.inverse()
        const strokes = style.stroke !== 'none' && parseFloat(style.strokeWidth) > 0 && Number(style.strokeOpacity) > 0.3
        const fills = style.fill.startsWith('rgb') && !/,\s*0\)$/.test(style.fill) && Number(style.fillOpacity) > 0.5
        points.forEach(([x, y], i) => {
          const p = new DOMPoint(x, y).matrixTransform(back)
          if (fills && order.get(s) < order.get(t.e) && s.isPointInFill?.(p)) grounds[i] = colour(style.fill)
          if (strokes && s.isPointInStroke?.(p)) {
            const line = colour(style.stroke)
            const thick = parseFloat(style.strokeWidth) * Math.hypot(matrix.a, matrix.b)
            if (thick >= 6 && order.get(s) < order.get(t.e)) grounds[i] = line
            else if (!halo && contrast(line, grounds[i]) > 2.2) crossed++
          }
        })
      }
      if (crossed > 0) faults.add(`crossed by a line: “${t.text}” in ${where(svg)}`)
      if (!halo && ink.length >= 3 && grounds.some((g) => g.length >= 3 && contrast(ink, g) < 3))
        faults.add(`on a ground it cannot be read on: “${t.text}” in ${where(svg)}`)
    }
  }
  return [...faults]
})()
