import fc from 'fast-check'
import { PAGE_LINES, setWriting, shareOutWriting } from './setWriting.ts'

test.each([
  { what: 'nothing', text: '  \n \t ', lines: [] },
  {
    what: 'a poem keeps its lines and its gap',
    text: 'The wind\r\nblows.\n\nIt stops.\n\n',
    lines: ['The wind', 'blows.', '', 'It stops.'],
  },
  {
    what: 'a line too long goes on at a space',
    text: `${'We found a crab under the weed. '.repeat(3)}`,
    lines: [
      'We found a crab under the weed. We found a crab under the weed.',
      'We found a crab under the weed.',
    ],
  },
  {
    what: 'a word longer than a line is broken',
    text: 'a'.repeat(100),
    lines: ['a'.repeat(65), 'a'.repeat(35)],
  },
  { what: 'leading spaces stay: a child sets a line in', text: '   in', lines: ['   in'] },
])('$what', ({ text, lines }) => expect(setWriting(text)).toEqual(lines))

test('no letter is lost, whatever is written', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 600 }), (text) => {
      const bare = (words: string) => words.replace(/\s/g, '')
      expect(bare(setWriting(text).join(''))).toBe(bare(text))
    }),
  )
})

test('what fits stands under the title; beside pictures, and where it is long, it goes on', () => {
  const poem = Array.from({ length: 10 }, (_, i) => `line ${i}`).join('\n')
  expect(shareOutWriting([poem], { pictures: false, letters: 40 })).toMatchObject({ more: [] })
  expect(shareOutWriting([poem], { pictures: false, letters: 900 }).more).toHaveLength(1)
  expect(shareOutWriting([poem], { pictures: true, letters: 0 })).toMatchObject({ first: [] })
  const four = { first: ['a', 'b', 'c', 'd'], more: [], large: false }
  expect(shareOutWriting(['a\nb\nc\nd'], { pictures: true, letters: 0 })).toEqual(four)
  expect(shareOutWriting(['The wind\nblows.'], { pictures: false, letters: 0 }).large).toBe(true)
  expect(shareOutWriting([poem], { pictures: false, letters: 0 }).large).toBe(false)
  const long = Array.from({ length: 14 + 2 * PAGE_LINES + 1 }, (_, i) => `line ${i}`).join('\n')
  expect(shareOutWriting([long], { pictures: false, letters: 0 }).more).toHaveLength(3)
})
