import { parse } from '../../ui/quantity'

/** Reads overload points: `0.5 s 6000 W; 5 s 4500 W`, seconds rising and watts falling. A comma with a blank after it parts them too. */
export function readPoints(text: string): { points: { seconds: number; watts: number }[] } | { reason: string } {
  const points = []
  for (const part of text.split(/;|,\s|,$/)) {
    const one = part.trim()
    if (one === '') continue
    const match = /^(.*?(?:s|sec|min))\s*:?\s*(.+)$/i.exec(one)
    const seconds = match && parse(match[1], 'seconds')
    const watts = match && parse(match[2], 'power', 'metric', (w) => w >= 10)
    if (!seconds || 'reason' in seconds || !watts || 'reason' in watts)
      return { reason: `“${one}” is not a point such as 5 s 4500 W` }
    points.push({ seconds: seconds.value, watts: watts.value })
  }
  return { points }
}
