import { goOf, judgedVersion } from './goOf.ts'

const version = (number: number, withdrawnAt: string | null = null) => ({ number, withdrawnAt })

test('what was taken out again is no go', () => {
  const [first, out, second] = [version(1), version(2, '2026-11-23T10:00:00Z'), version(3)]
  const all = [second, out, first]
  expect([first, second].map((one) => goOf(all, one))).toEqual([1, 2])
})

test('what lies in the tray is judged; else what was approved last; else the last that stands', () => {
  const go = (
    number: number,
    move: 'approve' | 'send-back' | null,
    withdrawnAt: string | null = null,
  ) => ({
    ...{ number, withdrawnAt, decision: move && { move } },
  })
  const [first, second, third] = [go(1, 'approve'), go(2, 'send-back'), go(3, null)]
  const out = go(4, null, '2026-11-23T10:00:00Z')
  expect(judgedVersion('submitted', [third, second, first])).toBe(third)
  expect(judgedVersion('draft', [out, third, second, first])).toBe(first)
  expect(judgedVersion('returned', [second])).toBe(second)
  expect(judgedVersion('draft', [out])).toBeUndefined()
})
