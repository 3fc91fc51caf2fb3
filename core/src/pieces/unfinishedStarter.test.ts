import fc from 'fast-check'
import { dropUnfinishedStarter } from './unfinishedStarter.ts'

const STARTERS = ['What went well is ', 'I would change ', 'I learned that ']

describe('a sentence begun by a tap', () => {
  test.each([
    ['alone', 'What went well is ', ''],
    ['alone, its space gone', 'I would change', ''],
    ['after a sentence', 'My bridge held. I would change ', 'My bridge held.'],
    ['on a new line', 'My bridge held\nI would change ', 'My bridge held'],
  ])('%s and never gone on with is not handed in', (_, text, left) => {
    expect(dropUnfinishedStarter(text, STARTERS)).toBe(left)
  })

  test.each(['What went well is the roof.', 'There is nothing I would change', 'It held.', ''])(
    'gone on with, or part of one’s own sentence, stays: %s',
    (text) => {
      expect(dropUnfinishedStarter(text, STARTERS)).toBe(text)
    },
  )

  test('nothing but a starter is ever taken away', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...STARTERS), (text, starter) => {
        const dropped = dropUnfinishedStarter(text, STARTERS)
        expect(text.startsWith(dropped.trimEnd())).toBe(true)
        expect(dropUnfinishedStarter(`${starter}${text || 'it'}x.`, STARTERS)).toBe(
          `${starter}${text || 'it'}x.`,
        )
      }),
    )
  })
})
