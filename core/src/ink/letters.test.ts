import fc from 'fast-check'
import { breakLines, lengthOf, unknownLetters, wordsPath } from './letters.ts'

test('words stand on their line, one letter after the other', () => {
  const path = wordsPath('il', { x: 100, y: 5000 }, 1000)
  const numbers = path.match(/-?\d+/g)!.map(Number)
  const ys = numbers.filter((_, i) => i % 2 === 1)
  expect(Math.min(...ys)).toBeGreaterThan(4000)
  expect(Math.max(...ys)).toBeLessThan(5050)
  expect(path).toMatch(/^M[\d MLQZ-]+Z$/)
})
test('twice the size is twice as long', () => {
  expect(lengthOf('The claw', 800)).toBeCloseTo(2 * lengthOf('The claw', 400), 6)
  expect(lengthOf('', 800)).toBe(0)
})
test('a letter written in two parts is the letter', () => {
  expect(wordsPath('e\u0301', { x: 0, y: 0 }, 1000)).toBe(wordsPath('é', { x: 0, y: 0 }, 1000))
})
test('names of many places have their letters; what is not known is said', () => {
  expect(unknownLetters('Łukasz Žižek Ñandú Đặng Їжак ½ × 4 – 8 ’“”')).toEqual([])
  expect(unknownLetters('水\nfish 水')).toEqual(['水'])
})
test('lines break between words, and keep the breaks that were typed', () => {
  expect(breakLines('the crab walks\nsideways', 500, lengthOf('the crab w', 500))).toEqual([
    ...['the crab', 'walks', 'sideways'],
  ])
})
test('no line is longer than it may be, and no letter is lost', () => {
  const words = fc.stringMatching(/^[a-zA-Zé ]{0,60}$/)
  fc.assert(
    fc.property(words, fc.integer({ min: 1200, max: 6000 }), (said, longest) => {
      const lines = breakLines(said, 1000, longest)
      for (const line of lines) expect(lengthOf(line, 1000)).toBeLessThanOrEqual(longest)
      expect(lines.join('').replace(/ /g, '')).toBe(said.replace(/ /g, ''))
    }),
  )
})
