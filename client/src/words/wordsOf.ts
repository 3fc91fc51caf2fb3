import { createTranslator } from 'use-intl/core'
import { LANGUAGE, PSEUDO } from './language'
import { pseudo } from './pseudo'

type Tree = { readonly [key: string]: string | Tree }

/**
 * The words of one capability: `t('pupils', { count })` is its message `pupils` in the language of
 * this page. Keys and what they need are checked by the compiler.
 * @param messages - In ICU's message syntax, in groups.
 */
export function wordsOf<const Own extends Tree>(messages: Own) {
  return createTranslator<Own>({
    locale: LANGUAGE,
    messages: LANGUAGE === PSEUDO ? (inPseudo(messages) as Own) : messages,
    // A message that cannot be said is a fault of ours: loud while we work, its key at school.
    ...(process.env.NODE_ENV === 'production' ? {} : { onError: fail }),
  })
}

function inPseudo(messages: Tree): Tree {
  return Object.fromEntries(
    Object.entries(messages).map(([key, said]) => [
      key,
      typeof said === 'string' ? pseudo(said) : inPseudo(said),
    ]),
  )
}

function fail(error: Error): never {
  throw error
}

/** The names in a group, of messages for one, in the order they are written down. */
export const namesOf = <Group extends object>(group: Group) =>
  Object.keys(group) as (keyof Group & string)[]
