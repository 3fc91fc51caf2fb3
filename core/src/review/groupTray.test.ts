import fc from 'fast-check'
import { groupTray, TRAY_GROUPINGS, type InTray } from './groupTray.ts'

type Piece = InTray & { id: string }
const piece = (id: string, task: string | null, pupil: string, folder: string | null): Piece => ({
  id,
  task: task === null ? null : { id: task },
  pupil: { id: pupil },
  folder: folder === null ? null : { id: folder },
})
const TRAY = [
  piece('1', 'bridge', 'wren', 'beams'),
  piece('2', null, 'kofi', 'clay'),
  piece('3', 'bridge', 'kofi', null),
]

test.each([
  [
    'task',
    [
      ['bridge', '1,3'],
      [null, '2'],
    ],
  ],
  [
    'folder',
    [
      ['beams', '1'],
      ['clay', '2'],
      [null, '3'],
    ],
  ],
  [
    'pupil',
    [
      ['wren', '1'],
      ['kofi', '2,3'],
    ],
  ],
] as const)('by %s, in the order they came', (by, expected) => {
  const shape = groupTray(TRAY, by).map(({ id, pieces }) => [
    id,
    pieces.map((one) => one.id).join(),
  ])
  expect(shape).toEqual(expected)
})

const some = fc.constantFrom('a', 'b', 'c')
const tray = fc.array(
  fc.record({
    id: fc.uuid(),
    task: fc.option(fc.record({ id: some })),
    folder: fc.option(fc.record({ id: some })),
    pupil: fc.record({ id: some }),
  }),
)
test('nothing is lost or twice, no group is empty or there twice, and order within is kept', () => {
  fc.assert(
    fc.property(tray, fc.constantFrom(...TRAY_GROUPINGS), (pieces, by) => {
      const groups = groupTray(pieces, by)
      expect(new Set(groups.map(({ id }) => id)).size).toBe(groups.length)
      for (const { id, pieces: together } of groups)
        expect(together).toEqual(pieces.filter((one) => (one[by]?.id ?? null) === id))
      expect(groups.reduce((sum, group) => sum + group.pieces.length, 0)).toBe(pieces.length)
    }),
  )
})
