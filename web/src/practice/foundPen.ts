/** What a drawing of a bank as found is made of: geometry alone, every word on it came with it. */
export type Shape =
  | { t: 'copper'; d: string; w: number }
  | { t: 'ink'; d: string; w?: number; dash?: string }
  | { t: 'gap'; d: string; w: number }
  | { t: 'box'; x: number; y: number; w: number; h: number; heavy?: boolean; tint?: boolean }
  | {
      t: 'text'
      x: number
      y: number
      s: string
      size?: number
      anchor?: 'middle' | 'end'
      bold?: boolean
      fig?: boolean
      faint?: boolean
    }
  | { t: 'post'; x: number; y: number; sign: '+' | '−' }
  | { t: 'dot'; x: number; y: number }

/** Where one may press, and where a flag stands. */
export interface Hit {
  key: string
  x: number
  y: number
  w: number
  h: number
}

export interface FoundPlan {
  width: number
  height: number
  shapes: Shape[]
  hits: Hit[]
}

const PX_PER_MM = 2
/** The height of a line of text. */
export const LINE = 13

/** The thickness of a conductor: 2 px a mm of its diameter. */
export const thick = (areaMm2: number) => Math.max(1.2, PX_PER_MM * 2 * Math.sqrt(areaMm2 / Math.PI))

/** Several side by side, a hair between them. */
export const bundle = (areaMm2: number, conductors: number) => thick(areaMm2) * conductors + 1.5 * (conductors - 1)

export class Pen {
  shapes: Shape[] = []
  hits: Hit[] = []

  copper(d: string, w: number) {
    this.shapes.push({ t: 'copper', d, w })
  }
  ink(d: string, w = 1, dash?: string) {
    this.shapes.push({ t: 'ink', d, w, dash })
  }
  /** A line that crosses others leaves a gap in them. */
  over(d: string, w: number) {
    this.shapes.push({ t: 'gap', d, w: w + 5 })
    this.copper(d, w)
  }
  box(x: number, y: number, w: number, h: number, more: { heavy?: boolean; tint?: boolean } = {}) {
    this.shapes.push({ t: 'box', x, y, w, h, ...more })
  }
  text(
    x: number,
    y: number,
    s: string,
    more: { size?: number; anchor?: 'middle' | 'end'; bold?: boolean; fig?: boolean; faint?: boolean } = {},
  ) {
    if (s) this.shapes.push({ t: 'text', x, y, s, ...more })
  }
  post(x: number, y: number, sign: '+' | '−') {
    this.shapes.push({ t: 'post', x, y, sign })
  }
  dot(x: number, y: number) {
    this.shapes.push({ t: 'dot', x, y })
  }
  hit(key: string, x: number, y: number, w: number, h: number) {
    this.hits.push({ key, x, y, w, h })
  }

  /** A fuse lying in a horizontal line, or standing in an upright one. */
  fuse(cx: number, cy: number, upright: boolean, small = false) {
    const [a, b] = small ? [20, 13] : [34, 24]
    const [w, h] = upright ? [b, a] : [a, b]
    this.box(cx - w / 2, cy - h / 2, w, h)
    this.ink(upright ? `M${cx} ${cy - h / 2}V${cy + h / 2}` : `M${cx - w / 2} ${cy}H${cx + w / 2}`, small ? 1.4 : 2)
  }
}

/** Text broken where a line of so many letters ends; a figure and its unit stay together. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = []
  text = text.replace(/(\d) (?=(?:V|mV\/K|A|W|s|h|m|mm²|kg|Ah|mΩ|°C)(?![\p{L}]))/gu, '$1\u00a0')
  for (const word of text.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= letters) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

/** About where the letters of a text lie; wide ones take more than most. */
function letters(s: Extract<Shape, { t: 'text' }>, each = 0.57): Box {
  const size = s.size ?? 12
  const w = s.s.length * size * (s.bold || s.fig ? each + 0.03 : each)
  return {
    x: s.anchor === 'middle' ? s.x - w / 2 : s.anchor === 'end' ? s.x - w : s.x,
    y: s.y - size * 0.8,
    w,
    h: size,
  }
}

/** How far to the right its words reach. */
export function reach(pen: Pen): number {
  const words = pen.shapes.filter((s) => s.t === 'text').map((s) => letters(s, 0.5))
  return Math.max(0, ...words.map((b) => b.x + b.w))
}

interface Box {
  x: number
  y: number
  w: number
  h: number
}

const meet = (a: Box, b: Box) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** Places for marks at the corners of parts, where one covers no words and no other mark; else the corner at the upper right. */
export class Corners {
  readonly #taken: Box[]
  readonly #plan: FoundPlan

  constructor(plan: FoundPlan) {
    this.#plan = plan
    this.#taken = plan.shapes.filter((s) => s.t === 'text').map((s) => letters(s))
  }

  /** The upper left corner of a mark so large at this part. */
  at(part: Box, w: number, h: number): { x: number; y: number } {
    const [left, right] = [part.x - w - 3, part.x + part.w + 3]
    const [above, below] = [part.y - h - 3, part.y + part.h + 3]
    const all = [
      { x: part.x + part.w - w + 2, y: part.y - 6 },
      { x: right, y: part.y - 3 },
      { x: part.x + part.w - w, y: above },
      { x: left, y: part.y - 3 },
      { x: right, y: part.y + part.h - h },
      { x: part.x + part.w - w, y: below },
      { x: part.x, y: below },
      { x: part.x, y: above },
      { x: left, y: part.y + part.h - h },
    ]
    const fits = (c: { x: number; y: number }) =>
      c.x >= 0 &&
      c.y >= 0 &&
      c.x + w <= this.#plan.width &&
      c.y + h <= this.#plan.height &&
      !this.#taken.some((t) => meet({ ...c, w, h }, t))
    const best = all.find(fits) ?? { x: all[0].x, y: Math.max(0, all[0].y) }
    this.#taken.push({ ...best, w, h })
    return best
  }
}
