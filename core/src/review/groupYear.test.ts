import fc from 'fast-check'
import { groupYear, YEAR_GROUPINGS } from './groupYear.ts'

const piece = (id: string, folder: string | null, strand: string | null) => ({
  id,
  folder: folder === null ? null : { id: folder, name: `The ${folder}` },
  strand,
})
const PIECES = [
  piece('d', 'shore', 'Science'),
  piece('c', 'poems', 'Writing'),
  piece('b', null, null),
  piece('a', 'shore', 'Science'),
]
const shown = (by: 'folder' | 'strand') =>
  groupYear(PIECES, by).map(({ name, pieces }) => [name, pieces.map(({ id }) => id).join('')])

test('by folder and by strand, newest on top, what has neither last', () => {
  expect(shown('folder')).toEqual([
    ['The shore', 'da'],
    ['The poems', 'c'],
    [null, 'b'],
  ])
  expect(shown('strand')).toEqual([
    ['Science', 'da'],
    ['Writing', 'c'],
    [null, 'b'],
  ])
})

test('each piece stands in one group, in its order', () => {
  const some = fc.array(
    fc.record({
      folder: fc.option(fc.constantFrom('f', 'g')),
      strand: fc.option(fc.constantFrom('s', 't')),
    }),
  )
  fc.assert(
    fc.property(some, fc.constantFrom(...YEAR_GROUPINGS), (found, by) => {
      const pieces = found.map(({ folder, strand }, i) => piece(`${i}`, folder, strand))
      const groups = groupYear(pieces, by)
      const ids = groups.flatMap(({ pieces: together }) => together.map(({ id }) => Number(id)))
      expect([...ids].sort((a, b) => a - b)).toEqual(pieces.map((_, i) => i))
      for (const { pieces: together } of groups) {
        const places = together.map(({ id }) => Number(id))
        expect(places).toEqual([...places].sort((a, b) => a - b))
      }
    }),
  )
})
