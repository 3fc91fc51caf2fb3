import { goOf } from './goOf.ts'

const version = (number: number, withdrawnAt: string | null = null) => ({ number, withdrawnAt })

test('what was taken out again is no go', () => {
  const [first, out, second] = [version(1), version(2, '2026-11-23T10:00:00Z'), version(3)]
  const all = [second, out, first]
  expect([first, second].map((one) => goOf(all, one))).toEqual([1, 2])
})
