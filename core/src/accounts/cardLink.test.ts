import fc from 'fast-check'
import { CARD_LETTERS } from './cardCode.ts'
import { readCardLink, writeCardLink } from './cardLink.ts'

const CODE = 'ACDEFGHJKMNPRTWX'
const HERE = ['https://nibquill.saltmarsh.example', 'http://192.168.0.9:4300']

describe('what a camera reads', () => {
  test.each([
    { said: `https://nibquill.saltmarsh.example/sign-in#${CODE}`, why: 'a card of this school' },
    {
      said: `http://192.168.0.9:4300/sign-in#${CODE}`,
      why: 'a card printed under the school’s other address',
    },
    { said: 'acde-fghj-kmnp-rtwx', why: 'a code without an address' },
  ])('$why opens the door', ({ said }) => {
    expect(readCardLink(said, HERE)).toEqual({ kind: 'card', code: CODE })
  })

  test('a card of another school is told apart, and its code is not passed on', () => {
    expect(readCardLink(`https://nibquill.elsewhere.example/sign-in#${CODE}`, HERE)).toEqual({
      kind: 'elsewhere',
    })
  })

  test.each([
    'WIFI:S:Saltmarsh;T:WPA;P:secret;;',
    'https://nibquill.saltmarsh.example/sign-in',
    `https://nibquill.saltmarsh.example/p/abc#${CODE}`,
    `javascript:alert(1)//sign-in#${CODE}`,
    'https://nibquill.saltmarsh.example/sign-in#%E0%A4%A',
    '',
  ])('a code of something else stays something else: %s', (said) => {
    expect(readCardLink(said, HERE)).toEqual({ kind: 'other' })
  })

  test('every card reads back as its own code, and nothing that is read ever throws', () => {
    const code = fc
      .array(fc.constantFrom(...CARD_LETTERS), { minLength: 16, maxLength: 16 })
      .map((letters) => letters.join(''))
    fc.assert(
      fc.property(code, (letters) => {
        expect(readCardLink(writeCardLink(HERE[0]!, letters), HERE)).toEqual({
          kind: 'card',
          code: letters,
        })
      }),
    )
    fc.assert(
      fc.property(fc.string(), (said) =>
        ['card', 'elsewhere', 'other'].includes(readCardLink(said, HERE).kind),
      ),
    )
  })
})
