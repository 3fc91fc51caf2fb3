import { countWords } from './countWords.ts'

test.each([
  { text: '', words: 0 },
  { text: '  \n ', words: 0 },
  { text: 'The wind blows.', words: 3 },
  { text: 'It’s a well-known crab – look !', words: 5 },
  { text: 'one\ntwo\n\nthree', words: 3 },
  { text: '8 legs, 2 claws', words: 4 },
  { text: 'Ωμέγα سرطان', words: 2 },
])('“$text” has $words words', ({ text, words }) => expect(countWords(text)).toBe(words))

test('words without spaces between them are counted as their language does', () => {
  expect(countWords('我喜欢螃蟹')).toBeGreaterThan(1)
})
