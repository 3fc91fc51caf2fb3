import fc from 'fast-check'
import {
  CARD_LETTERS,
  cardCodePrefix,
  makeCardCode,
  readCardCode,
  writeCardCode,
} from './cardCode.ts'

const anyCode = fc
  .array(fc.constantFrom(...CARD_LETTERS), { minLength: 16, maxLength: 16 })
  .map((letters) => letters.join(''))

test('a code written on a card and typed again in any case, with gaps or dashes, is the same code', () => {
  fc.assert(
    fc.property(
      anyCode,
      fc.constantFrom(' ', '-', '  ', '.', ''),
      fc.boolean(),
      (code, gap, lower) => {
        const typed = writeCardCode(code).replaceAll(' ', gap)
        expect(readCardCode(lower ? ` ${typed.toLowerCase()} ` : typed)).toBe(code)
      },
    ),
  )
})

test.each([
  '',
  'ACDE',
  'ACDE FGHJ KMNP RTW',
  'ACDE FGHJ KMNP RTWXY',
  'ACDE FGHJ KMNP RTW0',
  'ACDE FGHJ KMNP RTWO',
])('%j is no card code', (typed) => expect(readCardCode(typed)).toBeNull())

test('no letter of the alphabet looks like another letter or a digit', () => {
  expect([...CARD_LETTERS].filter((letter) => 'ILOQUVZSB0158'.includes(letter))).toEqual([])
})

test('bytes that would favour the first letters are skipped', () => {
  const bytes = [255, 0, 255, ...Array.from({ length: 15 }, (_, i) => i + 1)]
  expect(makeCardCode(() => bytes.shift() ?? 0)).toBe('ACDEFGHJKMNPRTWX')
})

test('the prefix is the first group', () => expect(cardCodePrefix('ACDEFGHJKMNPRTWX')).toBe('ACDE'))
