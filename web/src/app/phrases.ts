import type { GlossaryWord } from '../api/client'

/** What a word is called in a sentence: its term without its sign, and its other names, the long ones first. */
export function phrasesOf(words: readonly Pick<GlossaryWord, 'key' | 'term' | 'aliases'>[]) {
  return words
    .flatMap((w) =>
      [w.term.replace(/\s*\(.*\)$/, ''), ...w.aliases].map((text) => ({ text: text.toLowerCase(), key: w.key })),
    )
    .filter((p) => p.text.length > 1)
    .sort((a, b) => b.text.length - a.text.length)
}
