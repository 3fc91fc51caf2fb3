import type { PieceLine } from '@nibquill/contract'
import { groupTray } from './groupTray'

const piece = (id: string, taskTitle: string | null, firstName: string, folder: string) =>
  ({
    id,
    taskTitle,
    pupil: { firstName, lastName: 'A.' },
    folder: { name: folder },
  }) as unknown as PieceLine
const TRAY = [
  piece('1', 'Bridge', 'Wren', 'Beams'),
  piece('2', null, 'Kofi', 'Clay'),
  piece('3', 'Bridge', 'Kofi', 'Beams'),
]
const shape = (by: 'task' | 'folder' | 'pupil') =>
  groupTray(TRAY, by).map(({ title, pieces }) => [title, pieces.map(({ id }) => id).join()])

test('by task: pieces of one task together, in the order they came', () => {
  expect(shape('task')).toEqual([
    ['Bridge', '1,3'],
    ['of their own', '2'],
  ])
})
test('by folder', () =>
  expect(shape('folder')).toEqual([
    ['Beams', '1,3'],
    ['Clay', '2'],
  ]))
test('by pupil', () =>
  expect(shape('pupil')).toEqual([
    ['Wren A.', '1'],
    ['Kofi A.', '2,3'],
  ]))
