import fc from 'fast-check'
import { suggestTitle } from './suggestTitle.ts'
import { isVagueTitle } from './vagueTitle.ts'

test.each([
  '',
  '  ',
  'art',
  'Art',
  'untitled',
  'Untitled 2',
  'photo 1',
  'Photo1',
  'IMG_0042.jpg',
  'my work',
  'aaaa',
  '...',
  '17',
  'Rock pools',
  'rock  POOLS!',
])('“%s” says nothing in a year', (title) => expect(isVagueTitle(title, 'Rock pools')).toBe(true))

test.each([
  'Crab with big claws',
  'Week 2, bridge plan',
  'Art about the sea',
  'Rock pools, week 2',
  'My dog',
  'Mój pies',
  '海',
])('“%s” says something', (title) => expect(isVagueTitle(title, 'Rock pools')).toBe(false))

test('what is suggested for a task is never vague itself', () => {
  const word = fc.constantFrom('bridge', 'wind', 'crab', 'shore', 'clay')
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 4 }), fc.nat(40), (words, week) =>
      expect(
        isVagueTitle(suggestTitle({ task: words.join(' '), week: week + 1 }), 'Rock pools'),
      ).toBe(false),
    ),
  )
})

test('accents, case and gaps make no difference, and nothing throws', () => {
  fc.assert(
    fc.property(
      fc.string(),
      fc.string(),
      (title, folder) => typeof isVagueTitle(title, folder) === 'boolean',
    ),
  )
  expect(isVagueTitle('Ârt ', 'x')).toBe(true)
})
