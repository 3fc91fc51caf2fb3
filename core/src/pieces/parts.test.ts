import fc from 'fast-check'
import { MAX_PARTS, orderParts, takeWhatFits } from './parts.ts'

test.each([
  { picked: 200, there: 0, taken: 30 },
  { picked: 3, there: 28, taken: 2 },
  { picked: 3, there: 30, taken: 0 },
  { picked: 1, there: 29, taken: 1 },
])(
  '$picked photos picked for a piece with $there parts: $taken go in, in their order',
  ({ picked, there, taken }) => {
    const all = Array.from({ length: picked }, (_, i) => i)
    const fits = takeWhatFits(all, there)
    expect(fits.taken).toEqual(all.slice(0, taken))
    expect([...fits.taken, ...fits.left]).toEqual(all)
    expect(there + fits.taken.length).toBeLessThanOrEqual(MAX_PARTS)
  },
)

test('whatever order another tablet wished, every part is there once, and those named stand as wished', () => {
  const ids = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 3 }), { maxLength: 12 })
  fc.assert(
    fc.property(
      ids,
      fc.array(fc.string({ minLength: 1, maxLength: 3 }), { maxLength: 12 }),
      (parts, wanted) => {
        const ordered = orderParts(parts, wanted)
        expect([...ordered].sort()).toEqual([...parts].sort())
        const wished = [...new Set(wanted)].filter((id) => parts.includes(id))
        expect(ordered.slice(0, wished.length)).toEqual(wished)
      },
    ),
  )
})
