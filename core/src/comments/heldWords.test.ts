import fc from 'fast-check'
import { findHeldWords, FIRST_HELD_WORDS } from './heldWords.ts'

test.each([
  ['You are STUPID!', ['stupid*'], ['stupid*']],
  ['stupidly done', ['stupid*'], ['stupid*']],
  ['stupidly done', ['stupid'], []],
  ['A crab, not a bug.', ['crab', 'bug'], ['crab', 'bug']],
  ['Shut   up, please', ['shut up'], ['shut up']],
  ['shut the door, look up', ['shut up'], []],
  ['żałosne', ['zalosne'], ['zalosne']],
  ['a skill', ['kill*'], []],
  ['nothing', ['', '*', '  '], []],
])('in "%s" of %j stand %j', (said, list, found) => {
  expect(findHeldWords(said, list)).toEqual(found)
})

test('a word is found wherever it stands, in capitals or not', () => {
  const word = fc.constantFrom(...FIRST_HELD_WORDS.map((entry) => entry.replace('*', '')))
  fc.assert(
    fc.property(fc.lorem(), word, fc.lorem(), fc.boolean(), (before, held, after, loud) => {
      const said = `${before}, ${loud ? held.toUpperCase() : held}! ${after}`
      expect(findHeldWords(said, FIRST_HELD_WORDS)).not.toEqual([])
    }),
  )
})
