import fc from 'fast-check'
import {
  beginSitting,
  goOnSitting,
  newSince,
  placeInSitting,
  putBackIntoSitting,
} from './sitting.ts'

const piece = (id: string, task = 'bridge') => ({
  id,
  task: { id: task },
  folder: null,
  pupil: { id: `pupil of ${id}` },
})
const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => piece(id)) as [
  ReturnType<typeof piece>,
  ...ReturnType<typeof piece>[],
]
const three = beginSitting([a, b!, c!])

test('what was decided keeps its place, and next leads on from there', () => {
  const now = goOnSitting(three, [a, c!])
  expect(placeInSitting(now, 'task', 'b')).toEqual({
    number: 2,
    of: 3,
    nextId: 'c',
    previousId: 'a',
  })
})

test('next never walks backwards: after the last one comes nothing, though the first still waits', () => {
  expect(placeInSitting(three, 'task', 'c')).toMatchObject({ nextId: null, previousId: 'b' })
  expect(placeInSitting(three, 'task', null)).toMatchObject({ number: 0, nextId: 'a' })
})

test('what comes in meanwhile waits until it is wanted; a further page belongs to it at once', () => {
  expect(goOnSitting(three, [a, b!, c!, d!]).pieces).toHaveLength(3)
  expect(newSince(three, [a, b!, c!, d!])).toEqual([d])
  expect(goOnSitting(three, [a, b!, c!, d!], true).pieces.map(({ id }) => id)).toEqual([
    'a',
    'b',
    'c',
    'd',
  ])
})

test('handed in again it is new; taken back it lies where it lay', () => {
  const without = goOnSitting(three, [a, c!])
  const again = goOnSitting(without, [a, c!, b!])
  expect(newSince(again, [a, c!, b!])).toEqual([b])
  expect(placeInSitting(again, 'task', 'a').nextId).toBe('c')
  expect(placeInSitting(putBackIntoSitting(without, 'b'), 'task', 'a').nextId).toBe('b')
})

test('one works through the groups as they stand, whatever leaves', () => {
  const mixed = beginSitting([piece('a', 'poem'), piece('b', 'bridge'), piece('c', 'poem')])
  const order = (sitting: typeof mixed) => {
    const ids: string[] = []
    for (let id = placeInSitting(sitting, 'task', null).nextId; id;)
      id = (ids.push(id), placeInSitting(sitting, 'task', id).nextId)
    return ids
  }
  expect(order(mixed)).toEqual(['a', 'c', 'b'])
  expect(order(goOnSitting(mixed, [piece('b', 'bridge'), piece('c', 'poem')]))).toEqual(['c', 'b'])
})

test('whatever comes and goes, the order on screen never changes', () => {
  const ids = fc.uniqueArray(fc.integer({ min: 0, max: 20 }).map(String))
  fc.assert(
    fc.property(ids, fc.array(ids), (first, later) => {
      let sitting = beginSitting(first.map((id) => piece(id, `task ${Number(id) % 3}`)))
      const before = sitting.pieces.map(({ id }) => id)
      for (const now of later)
        sitting = goOnSitting(
          sitting,
          now.map((id) => piece(id)),
        )
      expect(sitting.pieces.map(({ id }) => id)).toEqual(before)
    }),
  )
})
