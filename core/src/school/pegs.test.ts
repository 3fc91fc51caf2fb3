import fc from 'fast-check'
import { COLOURS, PEG_SYMBOLS } from '../folders/looks.ts'
import { givePegs, pegName } from './pegs.ts'

const peg = fc.record({
  symbol: fc.constantFrom(...PEG_SYMBOLS),
  colour: fc.constantFrom(...COLOURS),
})
const key = ({ symbol, colour }: { symbol: string; colour: string }) => `${symbol} ${colour}`

test('no two pegs of a class are alike, and no symbol hangs twice while one is free', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(peg, { selector: key, maxLength: 40 }),
      fc.integer({ min: 0, max: 60 }),
      (taken, count) => {
        const given = givePegs(taken, count)
        expect(given).toHaveLength(count)
        const all = [...taken, ...given]
        expect(new Set(all.map(key)).size).toBe(all.length)
        const free = PEG_SYMBOLS.filter((symbol) => !taken.some((other) => other.symbol === symbol))
        expect(new Set(given.slice(0, free.length).map(({ symbol }) => symbol)).size).toBe(
          Math.min(count, free.length),
        )
      },
    ),
  )
})
test('a class of 34 has 34 symbols', () =>
  expect(new Set(givePegs([], 34).map(({ symbol }) => symbol)).size).toBe(34))
test('more pegs than there are is refused', () =>
  expect(() => givePegs([], 48 * 8 + 1)).toThrow(RangeError))

test.each([
  {
    first: 'Wren',
    last: 'Archer',
    isShared: false,
    name: 'Wren',
    why: 'surnames do not hang on a wall',
  },
  {
    first: 'Wren',
    last: 'Archer',
    isShared: true,
    name: 'Wren A.',
    why: 'one letter tells two of a name apart',
  },
  {
    first: 'Wren',
    last: '',
    isShared: true,
    name: 'Wren',
    why: 'without a surname there is no letter',
  },
  {
    first: 'Ida',
    last: '𝒮mith',
    isShared: true,
    name: 'Ida 𝒮.',
    why: 'a letter outside the common plane stays whole',
  },
])('$why', ({ first, last, isShared, name }) => {
  expect(pegName(first, last, isShared)).toBe(name)
})
