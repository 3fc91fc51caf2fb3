import fc from 'fast-check'
import { placePick } from './placePick.ts'

test.each([
  {
    order: ['a', 'b'],
    id: 'c',
    place: undefined,
    to: ['a', 'b', 'c'],
    why: 'a new pick goes last',
  },
  { order: ['a', 'b'], id: 'a', place: undefined, to: ['a', 'b'], why: 'without a place it stays' },
  { order: ['a', 'b', 'c'], id: 'c', place: 0, to: ['c', 'a', 'b'], why: 'to the front' },
  {
    order: ['a', 'b', 'c'],
    id: 'a',
    place: 9,
    to: ['b', 'c', 'a'],
    why: 'past the end means the end',
  },
  {
    order: ['a', 'b'],
    id: 'a',
    place: -3,
    to: ['a', 'b'],
    why: 'before the front means the front',
  },
])('$why', ({ order, id, place, to }) => expect(placePick(order, id, place)).toEqual(to))

test('placing never loses, doubles or reorders the others', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.string(), { maxLength: 12 }),
      fc.string(),
      fc.integer({ min: -5, max: 20 }),
      (order, id, place) => {
        const placed = placePick(order, id, place)
        expect(placed.filter((other) => other !== id)).toEqual(
          order.filter((other) => other !== id),
        )
        expect(placed.filter((other) => other === id)).toHaveLength(1)
      },
    ),
  )
})
