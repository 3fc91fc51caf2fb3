/**
 * A line of a writing on paper holds this many letters of middling width: 7 points each at 12.5
 * points of Andika, on the 459 points between the margins.
 */
const LINE_UNITS = 65
/** Lines under the title of a piece's own page, and where its words need more of the page. */
const FIRST_LINES = 14
const FIRST_LINES_BESIDE_MUCH = 8
const MUCH_LETTERS = 300
/** So few lines stand under the pictures; more have pages of their own. */
const LINES_UNDER_PICTURES = 6
/** Lines of a page that holds nothing else. */
export const PAGE_LINES = 33

/** How many middling letters a letter is as wide as: measured roughly, always enough. */
function unitsOf(letter: string): number {
  if (/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(letter))
    return 2
  if (/\p{Extended_Pictographic}/u.test(letter)) return 2
  if (/\p{Mark}/u.test(letter)) return 0
  return /[\p{Lu}mwMW@%&—…]/u.test(letter) ? 1.35 : 1
}
const widthOf = (words: string): number =>
  [...words].reduce((sum, letter) => sum + unitsOf(letter), 0)

/**
 * Sets a writing in lines: where the child began a new line there is one; what is too long goes on
 * in the next.
 * @returns Lines without their ends; an empty one where the child left one empty. Nothing for a
 *   writing in which nothing stands.
 */
export function setWriting(text: string): string[] {
  const typed = text.replace(/\r\n?/g, '\n').trimEnd()
  if (typed.trim() === '') return []
  return typed.split('\n').flatMap((line) => fill(line.replaceAll('\t', '    ')))
}

function fill(line: string): string[] {
  const lines: string[] = []
  let now = ''
  for (const word of line.trimEnd().split(/(?<=\s)(?=\S)/)) {
    if (now !== '' && widthOf(now + word.trimEnd()) > LINE_UNITS) {
      lines.push(now.trimEnd())
      now = ''
    }
    now += word
    // A word longer than a line is broken where the line is full.
    while (widthOf(now.trimEnd()) > LINE_UNITS) {
      const letters = [...now]
      let end = 0
      for (let width = 0; end < letters.length; end++) {
        width += unitsOf(letters[end]!)
        if (width > LINE_UNITS) break
      }
      lines.push(letters.slice(0, end).join(''))
      now = letters.slice(end).join('')
    }
  }
  return [...lines, now.trimEnd()]
}

/** A short writing is set in large letters: so few lines, none longer than this. */
const LARGE_LINES = 9
const LARGE_UNITS = 46

/**
 * How a piece's writings are shared out over its pages. `large`: there is room to set them large.
 */
export type WritingPages = { first: string[]; more: string[][]; large: boolean }

/**
 * Shares out the lines of a piece's writings: under its title where nothing else stands there, under
 * its pictures where they are few, and on pages of their own.
 * @param texts - Each writing of the piece, in order.
 * @param beside - What else its own page holds: whether pictures, and how many letters of words.
 */
export function shareOutWriting(
  texts: readonly string[],
  beside: { pictures: boolean; letters: number },
): WritingPages {
  const lines = texts
    .map(setWriting)
    .filter((set) => set.length > 0)
    .flatMap((set, i) => (i === 0 ? set : ['', ...set]))
  const much = beside.letters > MUCH_LETTERS
  const room = much ? FIRST_LINES_BESIDE_MUCH : FIRST_LINES
  const fitsUnder = !much && lines.length <= LINES_UNDER_PICTURES
  const first = beside.pictures && !fitsUnder ? [] : lines.slice(0, room)
  const rest = lines.slice(first.length)
  const more: string[][] = []
  for (let at = 0; at < rest.length; at += PAGE_LINES) more.push(rest.slice(at, at + PAGE_LINES))
  const large =
    more.length === 0 &&
    !much &&
    !beside.pictures &&
    first.length <= LARGE_LINES &&
    first.every((line) => widthOf(line) <= LARGE_UNITS)
  return { first, more, large }
}
