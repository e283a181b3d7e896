import { expect, it } from 'vitest'
import { blank, reached, saying } from '../src/stations/bank/positions'

it('what is said of a unit reaches it, its string or all strings', () => {
  const at = { string: 2, unit: 1 }
  expect(reached(at, 'unit', 2, 3)).toEqual([at])
  expect(reached(at, 'string', 2, 3)).toEqual([at, { string: 2, unit: 2 }])
  expect(reached(at, 'all', 2, 3)).toHaveLength(6)
})

it('something said of places is added to what was said before', () => {
  const before = [{ ...blank({ string: 1, unit: 1 }), health: 0.8 }]
  const after = saying(before, reached({ string: 1, unit: 1 }, 'string', 2, 1), { soc: 0.5 })
  expect(after).toEqual([
    { ...blank({ string: 1, unit: 1 }), health: 0.8, soc: 0.5 },
    { ...blank({ string: 1, unit: 2 }), soc: 0.5 },
  ])
  expect(before[0].soc).toBeNull()
})

it('a place of which nothing is said any more is left out', () => {
  const before = [{ ...blank({ string: 1, unit: 1 }), soc: 0.5 }]
  expect(saying(before, [{ string: 1, unit: 1 }], { soc: null })).toEqual([])
  expect(saying([], [{ string: 1, unit: 1 }], { soc: null })).toEqual([])
  // What is given may know more of the place than where it is.
  const drawn = { string: 1, unit: 1, xMm: 10 }
  expect(saying([], [drawn], { soc: 0.5 })).toEqual([{ ...blank({ string: 1, unit: 1 }), soc: 0.5 }])
})
