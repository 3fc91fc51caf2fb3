import { lastStepsOf, stepAfter } from './lastSteps.ts'

const ASKS = { asksThoughts: true }
const SETTLES_ALL = { asksThoughts: false }

test('what a pupil makes of their own accord is named, thought about, and handed in', () => {
  expect(lastStepsOf(null)).toEqual(['what', 'thoughts', 'tray'])
})

test.each([
  { task: null, from: 'making', to: 'what' },
  { task: null, from: 'what', to: 'thoughts' },
  { task: null, from: 'thoughts', to: 'tray' },
  { task: ASKS, from: 'making', to: 'thoughts' },
  { task: ASKS, from: 'thoughts', to: 'tray' },
  // A task’s piece that is named all the same goes on to the tray.
  { task: SETTLES_ALL, from: 'making', to: 'tray' },
  { task: SETTLES_ALL, from: 'what', to: 'tray' },
  { task: SETTLES_ALL, from: 'thoughts', to: 'tray' },
] as const)('$task: after $from comes $to', ({ task, from, to }) => {
  expect(stepAfter(from, task)).toBe(to)
})

test('a class that taps pictures is not asked for a name', () => {
  expect(lastStepsOf(null, true)).toEqual(['thoughts', 'tray'])
  expect(lastStepsOf({ asksThoughts: false }, true)).toEqual(['tray'])
  expect(stepAfter('making', null, true)).toBe('thoughts')
})
