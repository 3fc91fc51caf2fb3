import type { Peaks } from './peaks.ts'
import type { Stretch } from './silence.ts'

/** What is read while a stretch of a film is heard. */
export type Caption = Stretch & { text: string }

/** Two lines of so many letters are read at a glance. */
export const MOST_CAPTION_LETTERS = 74
/** What is not so much of the loudest is between words. */
const SPOKEN_SHARE = 0.15

/**
 * What is said in a film, piece by piece. Nobody noted when each word is said: sentences are spread
 * over what sounds by their letters, so that a rest has none.
 * @param text - As somebody typed it.
 * @param about - How long it is, and its peaks; without any all of it counts as spoken.
 */
export function captionsOf(text: string, { durationMs, peaks }: Peaks): Caption[] {
  const lines = sentencesOf(text).flatMap(short)
  const letters = lines.reduce((sum, line) => sum + line.length, 0)
  if (letters === 0 || !(durationMs > 0)) return []
  const spoken = spokenStretches(peaks, durationMs)
  const spokenMs = spoken.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0)
  let before = 0
  return lines.map((line) => {
    const from = (before / letters) * spokenMs
    before += line.length
    const to = (before / letters) * spokenMs
    return { ...between(spoken, from, to), text: line }
  })
}

/** @see Unicode Standard Annex #29, sentence boundaries */
function sentencesOf(text: string): string[] {
  const segments = new Intl.Segmenter('en', { granularity: 'sentence' }).segment(text)
  return [...segments].flatMap(({ segment }) => {
    const line = segment.trim().replace(/\s+/g, ' ')
    return line === '' ? [] : [line]
  })
}

/** Cut between words into pieces about alike; a longer word stays whole. */
function short(sentence: string): string[] {
  const count = Math.ceil(sentence.length / MOST_CAPTION_LETTERS)
  const wanted = Math.ceil(sentence.length / count)
  const lines: string[] = []
  for (const word of sentence.split(' ')) {
    const last = lines.at(-1)
    const longer = last === undefined ? word : `${last} ${word}`
    const fits = longer.length <= MOST_CAPTION_LETTERS && (last?.length ?? wanted) < wanted
    if (last !== undefined && fits) lines[lines.length - 1] = longer
    else lines.push(word)
  }
  return lines
}

function spokenStretches(peaks: readonly number[], durationMs: number): Stretch[] {
  const loudest = peaks.reduce((all, one) => Math.max(all, one), 0)
  if (loudest === 0) return [{ fromMs: 0, toMs: durationMs }]
  const at = (i: number) => (i / peaks.length) * durationMs
  const stretches: Stretch[] = []
  for (const [i, peak] of peaks.entries()) {
    if (peak < SPOKEN_SHARE * loudest) continue
    const last = stretches.at(-1)
    if (last?.toMs === at(i)) last.toMs = at(i + 1)
    else stretches.push({ fromMs: at(i), toMs: at(i + 1) })
  }
  return stretches
}

/** Where so much of what is spoken begins and ends: past a rest, and before the next one. */
function between(spoken: readonly Stretch[], from: number, to: number): Stretch {
  let before = 0
  let fromMs: number | null = null
  for (const stretch of spoken) {
    const after = before + stretch.toMs - stretch.fromMs
    if (fromMs === null && from < after) fromMs = stretch.fromMs + from - before
    if (fromMs !== null && to <= after + NOTHING_MS)
      return { fromMs: Math.round(fromMs), toMs: Math.round(stretch.fromMs + to - before) }
    before = after
  }
  const end = Math.round(spoken.at(-1)!.toMs)
  return { fromMs: Math.round(fromMs ?? end), toMs: end }
}
/** What adding fractions may be off by. */
const NOTHING_MS = 0.001
