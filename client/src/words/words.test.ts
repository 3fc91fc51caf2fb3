import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser'
import { DOMAIN_ERRORS, FAULTS } from '@nibquill/core'
import { existsSync, readdirSync } from 'node:fs'
import path from 'node:path'
import { createTranslator } from 'use-intl/core'
import { pseudo } from './pseudo'
import { wordsOf } from './wordsOf'

type Tree = { [key: string]: string | Tree }
type Value = string | number

test('plurals, numbers and choices follow the rules of the language', () => {
  const t = wordsOf({
    pupils: '{count, plural, =0 {nobody} one {# pupil} other {# pupils}}',
    share: '{share, number, percent} there',
    said: { by: '{answer, select, yes {yes} other {no}}, says {who}' },
  })
  expect([0, 1, 2, 1234].map((count) => t('pupils', { count }))).toEqual([
    'nobody',
    '1 pupil',
    '2 pupils',
    '1,234 pupils',
  ])
  expect(t('share', { share: 0.456 })).toBe('46% there')
  expect(t('said.by', { answer: 'yes', who: 'Ms Ray' })).toBe('yes, says Ms Ray')
  // What is missing does not compile, and is loud where it is made to.
  expect(() => t('pupils', {} as { count: number })).toThrow(/count/)
})

test('the pseudo-language keeps what is put in, marks both ends and is about 40 % longer', () => {
  expect(pseudo('Hang it up')).toMatch(/^⟦[Há]+.*⟧$/)
  const t = (message: string, values: Record<string, Value>) =>
    createTranslator({ locale: 'en-GB', messages: { message } })('message', values)
  const said = t(pseudo('Keeping {name}’s work for {days, plural, one {# day} other {# days}}'), {
    name: 'Wren',
    days: 2,
  })
  expect(said).toContain('Wren')
  expect(said).toMatch(/2 .*š⟧$/)
  const long = 'It is safe on this tablet and waits for the network.'
  expect(pseudo(long).length / long.length).toBeGreaterThan(1.35)
  expect(pseudo(long).length / long.length).toBeLessThan(1.6)
})

const flat = (tree: Tree, at = ''): [string, string][] =>
  Object.entries(tree).flatMap(([key, said]) =>
    typeof said === 'string' ? [[at + key, said]] : flat(said, `${at}${key}.`),
  )
const src = path.resolve(__dirname, '..')
const CAPABILITIES: [string, Tree][] = [
  ['refusals', DOMAIN_ERRORS],
  ['faults', FAULTS],
  ...readdirSync(src)
    .map((capability) => [capability, path.join(src, capability, 'messages.ts')] as const)
    .filter(([, file]) => existsSync(file))
    .map(([capability, file]): [string, Tree] => [
      capability,
      jest.requireActual<{ messages: Tree }>(file).messages,
    ]),
]

/** Something for everything a message asks for; numbers where it counts. */
function valuesFor(elements: MessageFormatElement[], number: number): Record<string, Value> {
  const values: Record<string, Value> = {}
  for (const element of elements) {
    if (element.type === TYPE.argument) values[element.value] ??= 'Wren'
    if (element.type === TYPE.number || element.type === TYPE.plural) values[element.value] = number
    if (element.type === TYPE.plural || element.type === TYPE.select)
      for (const option of Object.values(element.options))
        Object.assign(values, valuesFor(option.value, number))
    if (element.type === TYPE.select)
      values[element.value] = Object.keys(element.options)[number % 2] ?? 'other'
  }
  return values
}

test('there are words for every capability that shows something', () => {
  expect(CAPABILITIES.length).toBeGreaterThan(20)
})

test.each(CAPABILITIES)(
  'every message of %s can be said, in the pseudo-language too',
  (_, tree) => {
    const messages = flat(tree)
    expect(messages.length).toBeGreaterThan(0)
    for (const [key, message] of messages)
      for (const text of [message, pseudo(message)])
        for (const number of [0, 1, 2, 21]) {
          const said = createTranslator({
            locale: 'en-GB',
            messages: { text },
            onError: (error) => {
              throw new Error(`${key}: ${error.message}`)
            },
          })('text', valuesFor(parse(message), number))
          // A gap or a key in place of words would show braces or the key.
          expect([key, said]).toEqual([key, expect.not.stringMatching(/[{}]|^text$|undefined/)])
        }
  },
)
