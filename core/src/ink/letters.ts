import type { At } from './document.ts'
import { LETTERS } from './letters.generated.ts'

const EM = 1000
/** From one line of words to the next, and where words stand in the first, as shares of their size. */
export const LINE_SHARE = 1.35
export const BASE_SHARE = 0.98

/** Shown where a letter is not known: an empty box. */
const UNKNOWN = [600, 'm80 0l0 700l440 0l0 -700z'] as const
const letterOf = (letter: string) => LETTERS[letter] ?? UNKNOWN
const lettersIn = (words: string): string[] => [...words.normalize('NFC')]

/** Letters of some words that no drawing shows, each once. Line breaks are none. */
export const unknownLetters = (words: string): string[] => [
  ...new Set(lettersIn(words).filter((letter) => letter !== '\n' && !(letter in LETTERS))),
]

/** How long a line of words is, in the units of its size. */
export const lengthOf = (words: string, size: number): number =>
  (lettersIn(words).reduce((sum, letter) => sum + letterOf(letter)[0], 0) * size) / EM

/**
 * The outlines of a line of words.
 * @param from - Where it begins, on the line it stands on.
 * @returns SVG path data of M, L, Q and Z
 */
export function wordsPath(words: string, from: At, size: number): string {
  const scale = size / EM
  let along = from.x
  let path = ''
  for (const letter of lettersIn(words)) {
    const [advance, outline] = letterOf(letter)
    path += placed(outline, { x: along, y: from.y }, scale)
    along += advance * scale
  }
  return path
}

/** An outline in steps, up from the line, as it stands at a place. */
function placed(outline: string, { x, y }: At, scale: number): string {
  let [atX, atY] = [0, 0]
  const say = (stepX: number, stepY: number) =>
    `${Math.round(x + (atX + stepX) * scale)} ${Math.round(y - (atY + stepY) * scale)}`
  return outline.replace(/([mlqz])([^mlqz]*)/g, (_all, command: string, numbers: string) => {
    if (command === 'z') return 'Z'
    const steps = numbers.split(' ').map(Number)
    const points = Array.from({ length: steps.length / 2 }, (_, i) =>
      say(steps[2 * i]!, steps[2 * i + 1]!),
    )
    atX += steps.at(-2)!
    atY += steps.at(-1)!
    return command.toUpperCase() + points.join(' ')
  })
}

/**
 * Words in lines no longer than that: broken between words where they can be, within one where not;
 * a break that was typed stays.
 */
export function breakLines(words: string, size: number, longest: number): string[] {
  return words.split('\n').flatMap((typed) => {
    const lines: string[] = []
    let line = ''
    for (const word of typed.split(/(?<= )/)) {
      if (lengthOf((line + word).trimEnd(), size) <= longest) {
        line += word
        continue
      }
      if (line !== '') lines.push(line.trimEnd())
      line = ''
      for (const letter of lettersIn(word)) {
        if (line !== '' && lengthOf(line + letter, size) > longest) {
          lines.push(line)
          line = ''
        }
        line += letter
      }
    }
    return [...lines, line.trimEnd()]
  })
}
