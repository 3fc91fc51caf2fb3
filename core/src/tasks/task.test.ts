import { owes } from './task.ts'

test.each([
  { standing: 'none', owed: true },
  { standing: 'draft', owed: true },
  { standing: 'returned', owed: true },
  { standing: 'submitted', owed: false },
  { standing: 'approved', owed: false },
  { standing: 'ticked', owed: false },
] as const)('$standing: owed is $owed', ({ standing, owed }) => expect(owes(standing)).toBe(owed))
