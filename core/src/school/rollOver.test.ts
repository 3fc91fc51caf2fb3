import { faultsOfRollOver, nextYearGroup, proposeRollOver } from './rollOver.ts'

const OLD = [
  { id: 'h', name: 'Heron', yearGroup: 'Year 3', pupilIds: ['w', 't'] },
  { id: 'p', name: 'Plover', yearGroup: 'Year 1', pupilIds: ['a'] },
  { id: 's', name: 'Swan', yearGroup: 'Year 6', pupilIds: ['z'] },
]
const NEXT = [
  { id: 'e', name: 'Egret', yearGroup: 'Year 4' },
  { id: 'h2', name: 'Heron', yearGroup: 'Year 4' },
  { id: 'p2', name: 'Teal', yearGroup: 'Year 2' },
]

test('classes go up together, by the same name where there is one, and the oldest leave', () =>
  expect(proposeRollOver(OLD, NEXT)).toEqual([
    { pupilId: 'w', toClassId: 'h2' },
    { pupilId: 't', toClassId: 'h2' },
    { pupilId: 'a', toClassId: 'p2' },
    { pupilId: 'z', toClassId: null },
  ]))

test.each([
  { from: 'Year 3', to: 'Year 4' },
  { from: 'Reception', to: 'Year 1' },
  { from: 'P9', to: 'P10' },
  { from: 'Nursery', to: null },
])('$from is followed by $to', ({ from, to }) => expect(nextYearGroup(from)).toBe(to))

test('a plan that leaves somebody out, names somebody twice or a class that is not there, is refused', () => {
  const moves = proposeRollOver(OLD, NEXT)
  expect(faultsOfRollOver(moves, OLD, NEXT)).toEqual([])
  expect(faultsOfRollOver(moves.slice(1), OLD, NEXT)).toEqual(['pupil-left-out'])
  expect(faultsOfRollOver([...moves, moves[0]!], OLD, NEXT)).toEqual(['pupil-twice'])
  expect(
    faultsOfRollOver([...moves.slice(1), { pupilId: 'w', toClassId: 'x' }], OLD, NEXT),
  ).toEqual(['unknown-class'])
  expect(faultsOfRollOver([...moves, { pupilId: 'q', toClassId: null }], OLD, NEXT)).toEqual([
    'unknown-pupil',
  ])
})
