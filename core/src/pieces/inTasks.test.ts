import fc from 'fast-check'
import { inTasks } from './inTasks.ts'
import { PIECE_STEPS, type PieceStep } from './movePiece.ts'

const piece = (name: string, taskId: string | null, step: PieceStep) => ({
  ...{ name, step, task: taskId ? { id: taskId } : null },
  ...{ folder: { id: 'wind' }, pupil: { id: 'wren' } },
})
const shown = (pieces: readonly ReturnType<typeof piece>[]) =>
  inTasks(pieces).map(({ id, pieces: together }) => [
    id,
    together.map(({ name }) => name).join(' '),
  ])

test('within a task its plan comes first, then what was tried out, then what was finished', () => {
  expect(
    shown([
      piece('own', null, 'finished'),
      piece('bridge', 'bridges', 'finished'),
      piece('poem', 'poems', 'finished'),
      piece('beam', 'bridges', 'trying-out'),
      piece('arch', 'bridges', 'trying-out'),
      piece('sketch', 'bridges', 'plan'),
    ]),
  ).toEqual([
    ['bridges', 'sketch arch beam bridge'],
    ['poems', 'poem'],
    [null, 'own'],
  ])
  expect(shown([])).toEqual([])
})

test('nothing is lost or doubled, and no step stands before an earlier one', () => {
  const pieces = fc.array(
    fc.record({
      taskId: fc.option(fc.constantFrom('a', 'b')),
      step: fc.constantFrom(...PIECE_STEPS),
    }),
  )
  fc.assert(
    fc.property(pieces, (made) => {
      const all = made.map(({ taskId, step }, i) => piece(String(i), taskId, step))
      const groups = inTasks(all)
      const names = groups.flatMap((group) => group.pieces.map(({ name }) => name))
      expect(names.sort()).toEqual(all.map(({ name }) => name).sort())
      for (const group of groups) {
        const steps = group.pieces.map(({ step }) => PIECE_STEPS.indexOf(step))
        expect(steps).toEqual([...steps].sort((a, b) => a - b))
      }
    }),
  )
})
