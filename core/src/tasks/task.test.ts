import { missingParts, owes } from './task.ts'

test('what is asked for and not there yet is missing', () => {
  const asks = [{ kind: 'photo', count: 2 }, { kind: 'voice', count: 1 }] as const // prettier-ignore
  expect(missingParts(asks, { photo: 1 })).toEqual([{ kind: 'photo', count: 1 }, { kind: 'voice', count: 1 }]) // prettier-ignore
  expect(missingParts(asks, { photo: 3, voice: 1 })).toEqual([])
})
test.each([
  { standing: 'none', owed: true },
  { standing: 'draft', owed: true },
  { standing: 'returned', owed: true },
  { standing: 'submitted', owed: false },
  { standing: 'approved', owed: false },
  { standing: 'ticked', owed: false },
] as const)('$standing: owed is $owed', ({ standing, owed }) => expect(owes(standing)).toBe(owed))
