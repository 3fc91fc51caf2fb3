import { foldName } from '../school/foldName.ts'

export const MAX_HELD_WORDS = 500
export const MAX_HELD_WORD_LENGTH = 40

/** What a new school begins with; it changes the list as it likes. */
export const FIRST_HELD_WORDS = [
  ...['dumb', 'hate*', 'idiot*', 'kill*', 'loser*', 'rubbish', 'shut up', 'stupid*', 'ugly'],
] as const

/** Words one after the other, with a space on either side of each. */
const inWords = (text: string): string =>
  ` ${foldName(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `

/**
 * Which entries of a school's list stand in what was said: whole words and phrases, whatever their
 * case, accents and punctuation; one that ends in `*` stands for every word that begins like it.
 * @returns them as the school wrote them, in its order
 */
export function findHeldWords(said: string, list: readonly string[]): string[] {
  const words = inWords(said)
  return list.filter((entry) => {
    const sought = inWords(entry)
    if (sought.trim() === '') return false
    return words.includes(entry.trimEnd().endsWith('*') ? sought.trimEnd() : sought)
  })
}
