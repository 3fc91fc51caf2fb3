import fc from 'fast-check'
import { inThreads } from './inThreads.ts'

const said = (id: string, answersId: string | null = null) => ({ id, answersId })

test('what answers stands under what it answers, everything else as it was said', () => {
  expect(inThreads([said('a'), said('b'), said('c', 'a'), said('d', 'a'), said('e', 'z')])).toEqual(
    [
      { comment: said('a'), answers: [said('c', 'a'), said('d', 'a')] },
      { comment: said('b'), answers: [] },
      { comment: said('e', 'z'), answers: [] },
    ],
  )
})

test('nothing is lost, and nothing said twice', () => {
  const ids = ['a', 'b', 'c', 'd', 'e']
  const said_ = fc.uniqueArray(fc.constantFrom(...ids)).chain((chosen) =>
    // Only what was said before can be answered, and answers are not answered.
    fc.tuple(
      ...chosen.map((id, i) =>
        fc
          .option(fc.constantFrom('z', ...chosen.slice(0, i)))
          .map((answersId) => said(id, answersId)),
      ),
    ),
  )
  fc.assert(
    fc.property(said_, (all) => {
      const roots = new Set(all.filter(({ answersId }) => answersId === null).map(({ id }) => id))
      const flat = all.filter(
        ({ answersId }) => answersId === null || answersId === 'z' || roots.has(answersId),
      )
      const shown = inThreads(flat).flatMap(({ comment, answers }) => [comment, ...answers])
      expect(shown.map(({ id }) => id).sort()).toEqual(flat.map(({ id }) => id).sort())
    }),
  )
})
