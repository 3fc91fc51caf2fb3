import { LONGEST_VOICE_MS } from '../pieces/parts.ts'
import { drawOn, type InkChange } from './changes.ts'
import { INK_FORMAT, INK_VERSION, type InkDocument, type InkSheet, type Thing } from './document.ts'
import { picturesAmong } from './picturesAmong.ts'
import type { PackedPoints } from './points.ts'

/** Of one talk-through; its voice is as long as any other. */
export const LONGEST_TALK_MS = LONGEST_VOICE_MS
/** More than a hand does in that time. */
export const MOST_TALK_STEPS = 3000
/** In all its steps: a rubber makes several at each move. */
export const MOST_TALK_CHANGES = 20_000

/**
 * One thing done while somebody talked, on the clock of the voice. `atMs`: when the hand was lifted,
 * since the voice began, pauses left out. A line's own points tell how it grew until then.
 */
export type TalkStep = { atMs: number; changes: readonly TalkChange[] }
/** What is done to the one sheet there is. */
export type TalkChange = Extract<InkChange, { kind: 'put' | 'set' | 'take' }>
const ofTalk = ({ kind }: InkChange): boolean => kind === 'put' || kind === 'set' || kind === 'take'
/** A talk-through: the sheet as it lay there when somebody began to talk, and what they did to it. */
export type Talk = { start: InkSheet; steps: readonly TalkStep[] }

const inkOn = (sheet: InkSheet): InkDocument => ({
  format: INK_FORMAT,
  version: INK_VERSION,
  sheets: [sheet],
})

/**
 * A talk-through as it is kept: the sheet as it was left, for everybody who looks at it, prints it or
 * makes pictures of it, and how it came there.
 */
export function inkOfTalk(talk: Talk): InkDocument & { talk: Talk } {
  const all = talk.steps.flatMap(({ changes }) => changes)
  const [sheet] = drawOn(inkOn(talk.start), all).sheets
  return { ...inkOn(sheet!), talk }
}

/** Every picture that lies on it at any time. */
export const picturesInTalk = ({ start, steps }: Talk): string[] => [
  ...picturesAmong(start.things),
  ...picturesAmong(
    steps.flatMap(({ changes }) =>
      changes.flatMap((change) => ('things' in change ? change.things : [])),
    ),
  ),
]

/** How long a hand took to draw it; 0 for what was there at once. */
const tookMs = (thing: Thing): number =>
  'points' in thing ? thing.points.t.reduce((sum, more) => sum + more, 0) : 0

/** As far as a hand had come so long after it was put down. */
function begunBy(points: PackedPoints, ms: number): PackedPoints {
  let sum = 0
  const until = points.t.findIndex((more) => (sum += more) > ms)
  const count = until < 0 ? points.t.length : Math.max(1, until)
  const first = (list: number[]) => list.slice(0, count)
  return { x: first(points.x), y: first(points.y), t: first(points.t), p: first(points.p) }
}

/** What one sees at a moment. `growing`: what the hand is drawing just then, above the sheet. */
export type TalkMoment = { sheet: InkSheet; growing: readonly Thing[] }

/** Plays a talk-through: on with the clock, and to any moment of it. */
export class TalkReplay {
  readonly #talk: Talk
  #done = 0
  #ink: InkDocument

  constructor(talk: Talk) {
    this.#talk = talk
    this.#ink = inkOn(talk.start)
  }

  /** @param ms - On the clock of its voice. */
  at(ms: number): TalkMoment {
    const { steps, start } = this.#talk
    if (this.#done > 0 && steps[this.#done - 1]!.atMs > ms) {
      this.#done = 0
      this.#ink = inkOn(start)
    }
    while (this.#done < steps.length && steps[this.#done]!.atMs <= ms)
      this.#ink = drawOn(this.#ink, steps[this.#done++]!.changes)
    const next = steps[this.#done]
    return { sheet: this.#ink.sheets[0]!, growing: next ? growingAt(next, ms) : [] }
  }
}

const growingAt = ({ atMs, changes }: TalkStep, ms: number): Thing[] =>
  changes
    .flatMap((change) => (change.kind === 'put' ? change.things : []))
    .flatMap((thing) => {
      const since = ms - (atMs - tookMs(thing))
      return 'points' in thing && since >= 0
        ? [{ ...thing, points: begunBy(thing.points, since) }]
        : []
    })

/**
 * Writes down a talk-through while it happens.
 * @param clock - Milliseconds of voice so far, pauses left out.
 */
export class TalkNotes {
  readonly #start: InkSheet
  readonly #clock: () => number
  #steps: TalkStep[] = []
  #changes = 0

  constructor(start: InkSheet, clock: () => number) {
    this.#start = start
    this.#clock = clock
  }

  /** What was done just now. @returns whether there was room for it */
  add(changes: readonly InkChange[]): boolean {
    const done = changes.filter((change): change is TalkChange => ofTalk(change))
    this.#changes += done.length
    if (this.#steps.length >= MOST_TALK_STEPS || this.#changes > MOST_TALK_CHANGES) return false
    // Two in one millisecond keep their order; a clock never runs back.
    const atMs = Math.max(Math.round(this.#clock()), this.#steps.at(-1)?.atMs ?? 0)
    this.#steps.push({ atMs, changes: done })
    return true
  }

  get talk(): Talk {
    return { start: this.#start, steps: [...this.#steps] }
  }
}
