import { describe, expect, it } from 'vitest'
import { isSize, readNumber } from '../src/ui/written'
import cases from '../../docs/format/numbers.json'

interface Case {
  text: string
  value?: number
  other?: number
  by?: string
  rest?: string
  size?: boolean
}

describe('a number as it is written', () => {
  it.each(cases as Case[])('$text', ({ text, value, other = null, by = null, rest = '', size = false }) => {
    expect(isSize(text)).toBe(size)
    const read = readNumber(text)
    if (value === undefined) expect(read).toBeNull()
    else expect(read).toMatchObject({ value, other, by, rest })
  })
})
