import { api } from '../api/client'
import { phrasesOf } from './phrases'
import { route } from './route.svelte'

/**
 * Words of the job open where they stand: the first of each on a screen has dots under it and is pressed, any word is looked up by pressing
 * it twice. Nothing of the page is changed for that: the dots are a highlight over it.
 */
const QUIET_MS = 500
const MOST_NODES = 1500
const NAME = 'badger-word'
/** What has a press of its own, and what is no prose. */
const BUT =
  'button, a, summary, th, [tabindex], input, select, textarea, label, svg, dialog, nav, .fig, .working, [role=button], [contenteditable], .headline, .said, .say, .plate'

/** What is pressed for something else shows it under the hand, whatever it is made of. */
const pressable = (e: Element) => e.closest(BUT) !== null || getComputedStyle(e).cursor === 'pointer'

interface Mark {
  range: StaticRange | Range
  key: string
}

export function lookUp(): () => void {
  const highlights = 'highlights' in CSS ? CSS.highlights : null
  let phrases: { text: string; key: string }[] = []
  let marks: Mark[] = []
  let timer: ReturnType<typeof setTimeout> | undefined

  const inDesign = () => route.design !== null && route.practising?.view !== 'words' && !route.bringUp

  async function learn() {
    try {
      phrases = phrasesOf(await api.glossary())
      later()
    } catch {
      // Without the words there is nothing to press; the place Practice says why.
    }
  }

  function later() {
    clearTimeout(timer)
    timer = setTimeout(paint, QUIET_MS)
  }

  function paint() {
    marks = []
    const main = document.querySelector('main')
    if (main && inDesign()) {
      const left = new Map(phrases.map((p) => [p.text, p.key]))
      const pattern =
        left.size > 0
          ? new RegExp(`(?<![\\p{L}-])(${[...left.keys()].map(escaped).join('|')})(?![\\p{L}-])`, 'giu')
          : null
      const walker = document.createTreeWalker(main, NodeFilter.SHOW_TEXT)
      const seen = new Set<string>()
      for (let n = 0; pattern && n < MOST_NODES && walker.nextNode(); n++) {
        const node = walker.currentNode as Text
        if (!node.parentElement || node.parentElement.closest(BUT)) continue
        for (const match of node.data.matchAll(pattern)) {
          if (getComputedStyle(node.parentElement).cursor === 'pointer') break
          const key = left.get(match[0].toLowerCase())
          if (!key || seen.has(key)) continue
          seen.add(key)
          const range = document.createRange()
          range.setStart(node, match.index)
          range.setEnd(node, match.index + match[0].length)
          marks.push({ range, key })
        }
      }
    }
    highlights?.set(NAME, new Highlight(...marks.map((m) => m.range)))
  }

  function pressed(e: MouseEvent) {
    if (e.defaultPrevented || e.button !== 0 || !(e.target instanceof Element) || pressable(e.target)) return
    const at = caretAt(e.clientX, e.clientY)
    if (!at) return
    const hit = marks.find(
      ({ range }) => range.startContainer === at.node && at.offset >= range.startOffset && at.offset <= range.endOffset,
    )
    if (hit) open(hit.key)
  }

  function twice(e: MouseEvent) {
    if (!inDesign() || !(e.target instanceof Element) || pressable(e.target)) return
    const word = getSelection()?.toString().trim().toLowerCase() ?? ''
    if (word.length < 2) return
    const key = phrases.find((p) => p.text === word)?.key ?? phrases.find((p) => p.text.split(' ').includes(word))?.key
    if (key) open(key)
  }

  const watch = new MutationObserver(later)
  watch.observe(document.body, { childList: true, subtree: true, characterData: true })
  document.addEventListener('click', pressed)
  document.addEventListener('dblclick', twice)
  void learn()
  return () => {
    clearTimeout(timer)
    watch.disconnect()
    document.removeEventListener('click', pressed)
    document.removeEventListener('dblclick', twice)
    highlights?.delete(NAME)
  }
}

function open(key: string) {
  route.go(`#/d/${route.design}/practice/words/${key}`)
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

function caretAt(x: number, y: number): { node: Node; offset: number } | null {
  if (document.caretPositionFromPoint) {
    const at = document.caretPositionFromPoint(x, y)
    return at && { node: at.offsetNode, offset: at.offset }
  }
  const range = document.caretRangeFromPoint?.(x, y)
  return range ? { node: range.startContainer, offset: range.startOffset } : null
}
