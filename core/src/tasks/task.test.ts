import { owes, partsMissing } from './task.ts'

test.each([
  { standing: 'none', owed: true },
  { standing: 'draft', owed: true },
  { standing: 'returned', owed: true },
  { standing: 'submitted', owed: false },
  { standing: 'approved', owed: false },
  { standing: 'ticked', owed: false },
] as const)('$standing: owed is $owed', ({ standing, owed }) => expect(owes(standing)).toBe(owed))

test('what a task asks for and is not there, in its order; what is there too often is no fault', () => {
  const asks = [
    { kind: 'voice', count: 2 },
    { kind: 'photo', count: 1 },
    { kind: 'film', count: 1 },
  ] as const
  const of = (...kinds: string[]) => kinds.map((kind) => ({ kind }))
  expect(partsMissing(asks, [])).toEqual(asks)
  expect(partsMissing(asks, of('photo', 'photo', 'voice', 'page'))).toEqual([
    { kind: 'voice', count: 1 },
    { kind: 'film', count: 1 },
  ])
  expect(partsMissing(asks, of('voice', 'voice', 'photo', 'film'))).toEqual([])
  expect(partsMissing([], of('photo'))).toEqual([])
  // Who draws and talks has done both.
  expect(partsMissing(asks, of('talk', 'photo'))).toEqual([
    { kind: 'voice', count: 1 },
    { kind: 'film', count: 1 },
  ])
})
