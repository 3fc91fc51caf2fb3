import fc from 'fast-check'
import { backOffMs, whoseTurn, type Waiting } from './backOff.ts'

test('waits grow, stay under five minutes, and differ by chance', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (failures, chance) => {
        const wait = backOffMs(failures, chance)
        expect(wait).toBeGreaterThanOrEqual(500)
        expect(wait).toBeLessThanOrEqual(300_000)
        expect(backOffMs(failures + 1, chance)).toBeGreaterThanOrEqual(wait)
      },
    ),
  )
  expect([1, 2, 3, 4].map((failures) => backOffMs(failures, 1))).toEqual([2000, 4000, 8000, 16_000])
  expect(backOffMs(20, 1)).toBe(300_000)
})

const of = (group: string, ...ids: string[]): Waiting[] => ids.map((id) => ({ id, group }))

test('one photo of a second piece goes before the rest of thirty of the first', () => {
  const waiting = [...of('crab', 'c2', 'c3', 'c4'), ...of('boat', 'b1')]
  expect(whoseTurn(waiting, ['crab'], ['crab'])?.id).toBe('b1')
  expect(whoseTurn(waiting, [], ['crab'])?.id).toBe('b1')
  expect(whoseTurn(waiting, [], ['boat', 'crab'])?.id).toBe('b1')
  expect(whoseTurn(waiting, [], ['crab', 'boat'])?.id).toBe('c2')
  expect(whoseTurn([], [], [])).toBeNull()
})

test('served one after the other, no group gets two ahead of another that still waits', () => {
  const groups = fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 40 })
  fc.assert(
    fc.property(groups, (list) => {
      let waiting = list.map((group, i) => ({ id: String(i), group }))
      const served: string[] = []
      while (waiting.length > 0) {
        const next = whoseTurn(waiting, [], served)!
        for (const { group } of waiting) {
          const count = (name: string) => served.filter((other) => other === name).length
          expect(count(next.group)).toBeLessThanOrEqual(count(group) + 0)
        }
        served.push(next.group)
        waiting = waiting.filter(({ id }) => id !== next.id)
      }
    }),
  )
})
