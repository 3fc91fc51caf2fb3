/**
 * What a pupil thinks, without a sentence that was begun by a tap and never gone on with.
 * @param starters - Ways to begin, as they are put down, with or without the space behind.
 * @returns the text as it is where its last sentence says more than a starter; else what stands
 *   before that starter
 */
export function dropUnfinishedStarter(text: string, starters: readonly string[]): string {
  const said = text.trimEnd()
  const begun = starters
    .map((starter) => starter.trim())
    .find((starter) => starter !== '' && endsWithSentence(said, starter))
  return begun === undefined ? text : said.slice(0, said.length - begun.length).trimEnd()
}

/** Whether the text ends in just these words, where a sentence or a line begins. */
function endsWithSentence(text: string, words: string): boolean {
  if (!text.endsWith(words)) return false
  const before = text.slice(0, text.length - words.length)
  return before.trim() === '' || /[.!?\n]\s*$/.test(before)
}
