import fc from 'fast-check'
import { mergeWords } from './mergeWords.ts'

const base = { title: 'Crab', reflection: '', step: 'plan' }

test.each([
  { why: 'nothing changed', mine: {}, theirs: {}, merged: {}, differing: [] },
  {
    why: 'only here',
    mine: { title: 'Rock crab' },
    theirs: {},
    merged: { title: 'Rock crab' },
    differing: [],
  },
  {
    why: 'only there',
    mine: {},
    theirs: { step: 'finished' },
    merged: { step: 'finished' },
    differing: [],
  },
  {
    why: 'different fields',
    mine: { title: 'Rock crab' },
    theirs: { reflection: 'It pinches.' },
    merged: { title: 'Rock crab', reflection: 'It pinches.' },
    differing: [],
  },
  {
    why: 'the same in both',
    mine: { title: 'A' },
    theirs: { title: 'A' },
    merged: { title: 'A' },
    differing: [],
  },
  {
    why: 'both, differently',
    mine: { title: 'A' },
    theirs: { title: 'B' },
    merged: { title: 'A' },
    differing: ['title'],
  },
])('words written on two tablets: $why', ({ mine, theirs, merged, differing }) => {
  expect(mergeWords(base, { ...base, ...mine }, { ...base, ...theirs })).toEqual({
    merged: { ...base, ...merged },
    differing,
  })
})

test('whatever is written where, nothing is silently lost: each change is merged or asked about', () => {
  const words = fc.record({
    title: fc.constantFrom('', 'a', 'b'),
    reflection: fc.constantFrom('', 'x', 'y'),
  })
  fc.assert(
    fc.property(words, words, words, (before, mine, theirs) => {
      const { merged, differing } = mergeWords(before, mine, theirs)
      for (const field of ['title', 'reflection'] as const) {
        if (mine[field] !== before[field]) expect(merged[field]).toBe(mine[field])
        if (theirs[field] !== before[field] && !differing.includes(field))
          expect(merged[field]).toBe(theirs[field])
      }
    }),
  )
})
