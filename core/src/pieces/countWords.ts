/** Letters between spaces, as a teacher counts: "it’s" and "well-known" are one word each. */
const WORD = /[\p{L}\p{N}]/u

/** Words of a text; of writing without spaces between words, what the language counts as such. */
export function countWords(text: string): number {
  if (
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Khmer}\p{Script=Lao}]/u.test(
      text,
    )
  ) {
    const words = new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text)
    return [...words].filter(({ isWordLike }) => isWordLike).length
  }
  return text.split(/\s+/).filter((word) => WORD.test(word)).length
}
