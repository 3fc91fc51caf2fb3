import type { InkChange } from '../ink/changes.ts'
import { picturesAmong } from '../ink/picturesAmong.ts'
import type { Talk } from '../ink/talk.ts'
import type { Stretch } from '../sound/silence.ts'
import type { PieceStep } from '../pieces/movePiece.ts'
import type { Tidying } from '../tidy/tidying.ts'

/** What a pupil wrote or chose about a piece. */
export type Words = { title: string; reflection: string; step: PieceStep; folderId: string | null }

/** A part as it was made on a tablet. */
export type NewPart =
  | {
      kind: 'photo'
      name: string
      /** Its file, which goes to school before it. */
      mediaId: string
      /** It takes the place of another part: a photo tidied from that one. */
      instead: { partId: string; tidying: Tidying | null } | null
    }
  /** `mediaId`: of its ink as it began, which goes to school before it. */
  | { kind: 'drawing'; name: string; mediaId: string }
  | { kind: 'writing'; name: string; text: string }
  /**
   * `mediaId`: what was said, which goes to school before it. `heard`: without the silence at its
   * ends.
   */
  | { kind: 'voice'; name: string; mediaId: string; heard: Stretch | null }
  /** `mediaId`: what was said while it was drawn, which goes to school before it. */
  | { kind: 'talk'; name: string; mediaId: string; talk: Talk }
  | { kind: 'film'; name: string; mediaId: string }
  /** `mediaId`: the paper, which goes to school before it. */
  | { kind: 'page'; name: string; mediaId: string }
  | { kind: 'link'; name: string; address: string }

/** The file a part brings, which goes to school before it. */
export const fileOf = (part: NewPart): string | null => ('mediaId' in part ? part.mediaId : null)
/** The part whose place another one takes. */
export const replacedBy = (part: NewPart): string | null =>
  part.kind === 'photo' ? (part.instead?.partId ?? null) : null

/** One thing a pupil wants of the school. `at`: milliseconds since 1970, when it was wanted. */
export type Intent = { id: string; pieceId: string; at: number } & IntentBody
export type IntentBody =
  | { kind: 'start'; taskId: string | null }
  | { kind: 'file'; mediaId: string; name: string; sizeBytes: number }
  | { kind: 'add-part'; partId: string; part: NewPart }
  /** `seenText`: what stood there at school when its writer began. */
  | { kind: 'content'; partId: string; text: string; seenText: string }
  /** What was drawn, in its order. */
  | { kind: 'ink'; partId: string; changes: readonly InkChange[] }
  /** `base`: as the school had them when the pupil began; what differs there now was written elsewhere. */
  | { kind: 'words'; words: Words; base: Words }
  | { kind: 'order'; partIds: readonly string[] }
  | { kind: 'name'; partId: string; name: string }
  /** What stands for a film: a picture that goes to school before; null for the school's own choice. */
  | { kind: 'poster'; partId: string; mediaId: string | null }
  | { kind: 'remove'; partId: string; restore: boolean }
  | { kind: 'makers'; makerIds: readonly string[] }
  /**
   * Something said under the piece; `withId`: to that teacher alone. `thoughts`: what its author
   * thinks of what they made with others. `mediaId`: what was said aloud, which goes to school before
   * it; null where nothing was.
   */
  | {
      kind: 'comment'
      commentId: string
      words: string
      mediaId: string | null
      withId: string | null
      thoughts: boolean
    }
  | { kind: 'hand-in' }
  | { kind: 'withdraw' }
  | { kind: 'bin'; restore: boolean }
export type IntentKind = Intent['kind']
export type IntentOf<K extends IntentKind> = Extract<Intent, { kind: K }>

/**
 * What is taken out, or thrown away, before the school has heard of it is held for so long, so that
 * it can be taken back; then neither is ever sent.
 */
export const TAKE_BACK_MS = 10_000

/** Lines are gathered for so long before they set out together: a hand draws several a second. */
export const GATHER_MS = 3000
/** What is drawn goes on in another intent from here on: about sixty kilobytes, written anew with each line. */
const MOST_GATHERED = { changes: 60, numbers: 20_000 }

/** Moves of a whole piece: nothing passes them, neither way. */
const isMove = ({ kind }: Intent): boolean =>
  kind === 'hand-in' || kind === 'withdraw' || kind === 'bin'

/**
 * Puts one more intent into the outbox, merged with what waits there: words are written over, taking
 * out and putting back cancel each other. Nothing is merged across a move of the whole piece.
 * @param queue - What waits, in the order it was wanted.
 * @param tried - Ids of intents that set out once, whatever became of it: the school may have heard
 *   them, so they are not touched any more.
 * @returns the queue as it is now; the same array when nothing changes
 */
export function addIntent(
  queue: readonly Intent[],
  intent: Intent,
  tried: ReadonlySet<string>,
): readonly Intent[] {
  const from = queue.findLastIndex((other) => other.pieceId === intent.pieceId && isMove(other)) + 1
  const open = (other: Intent, i: number): boolean =>
    i >= from && other.pieceId === intent.pieceId && !tried.has(other.id)
  const find = (fits: (other: Intent) => boolean): number =>
    queue.findLastIndex((other, i) => open(other, i) && fits(other))
  const change = (i: number, to: Intent): readonly Intent[] =>
    queue.map((other, j) => (j === i ? to : other))
  const without = (...gone: number[]): readonly Intent[] =>
    queue.filter((_, i) => !gone.includes(i))
  switch (intent.kind) {
    case 'start':
      return queue.some(({ kind, pieceId }) => kind === 'start' && pieceId === intent.pieceId)
        ? queue
        : [...queue, intent]
    case 'words': {
      const i = find(({ kind }) => kind === 'words')
      const before = queue[i]
      if (before?.kind === 'words') return change(i, { ...before, words: intent.words })
      return [...queue, goingOn(queue, intent)]
    }
    case 'content': {
      const i = find(
        (other) =>
          (other.kind === 'content' || other.kind === 'add-part') && other.partId === intent.partId,
      )
      const before = queue[i]
      if (before?.kind === 'content') return change(i, { ...before, text: intent.text })
      if (before?.kind === 'add-part' && before.part.kind === 'writing')
        return change(i, { ...before, part: { ...before.part, text: intent.text } })
      const earlier = textOf(queue, intent.partId)
      return [...queue, earlier === null ? intent : { ...intent, seenText: earlier }]
    }
    case 'ink': {
      const i = find((other) => other.kind === 'ink' && other.partId === intent.partId)
      const before = queue[i]
      return before?.kind === 'ink' && fitsTogether(before, intent)
        ? change(i, { ...before, changes: [...before.changes, ...intent.changes] })
        : [...queue, intent]
    }
    case 'name':
    case 'poster': {
      const i = find((other) => other.kind === intent.kind && other.partId === intent.partId)
      return i < 0 ? [...queue, intent] : [...without(i), intent]
    }
    case 'order':
    case 'makers': {
      const i = find(({ kind }) => kind === intent.kind)
      return i < 0 ? [...queue, intent] : [...without(i), intent]
    }
    case 'remove': {
      const i = find((other) => other.kind === 'remove' && other.partId === intent.partId)
      const before = queue[i]
      // What was done to it in between was done to a part that was there.
      if (before?.kind !== 'remove' || isTouched(queue.slice(i + 1), intent.partId))
        return [...queue, intent]
      return before.restore === intent.restore ? queue : without(i)
    }
    case 'bin':
    case 'withdraw': {
      const last = queue[from - 1]
      return last && !tried.has(last.id) && cancelsOut(last, intent)
        ? without(from - 1)
        : [...queue, intent]
    }
    case 'hand-in':
      return queue[from - 1]?.kind === 'hand-in' && !queue.slice(from).some(open)
        ? queue
        : [...queue, intent]
    case 'file':
    case 'add-part':
    case 'comment':
      return [...queue, intent]
  }
}

/** Whether anything else is wanted of a part. */
const isTouched = (queue: readonly Intent[], partId: string): boolean =>
  queue.some((other) => 'partId' in other && other.partId === partId)

/** Whether nothing is left to be done where one follows the other. */
const cancelsOut = (last: Intent, next: Intent): boolean =>
  next.kind === 'bin'
    ? last.kind === 'bin' && last.restore !== next.restore
    : next.kind === 'withdraw' && last.kind === 'hand-in'

/** Pictures that are laid on go to school before, each in a batch of its own. */
const picturesIn = ({ changes }: IntentOf<'ink'>): string[] =>
  picturesAmong(changes.flatMap((change) => ('things' in change ? change.things : [])))

function fitsTogether(...intents: IntentOf<'ink'>[]): boolean {
  if (intents.some((intent) => picturesIn(intent).length > 0)) return false
  const changes = intents.flatMap((intent) => intent.changes)
  const numbers = changes
    .flatMap((change) => ('things' in change ? change.things : []))
    .reduce((sum, thing) => sum + ('points' in thing ? 4 * thing.points.x.length : 4), 0)
  return changes.length <= MOST_GATHERED.changes && numbers <= MOST_GATHERED.numbers
}

/** What is on its way already is what these words go on from. */
function goingOn(queue: readonly Intent[], intent: IntentOf<'words'>): Intent {
  const earlier = queue.findLast(
    (other) => other.kind === 'words' && other.pieceId === intent.pieceId,
  )
  return earlier?.kind === 'words' ? { ...intent, base: earlier.words } : intent
}

/** What a writing will say when everything that is on its way has arrived. */
function textOf(queue: readonly Intent[], partId: string): string | null {
  const last = queue.findLast(
    (other) => (other.kind === 'content' || other.kind === 'add-part') && other.partId === partId,
  )
  if (last?.kind === 'content') return last.text
  return last?.kind === 'add-part' && last.part.kind === 'writing' ? last.part.text : null
}

/**
 * What nobody needs to send any more: a part that was taken out, and a piece that was thrown away,
 * before the school heard of either. Held for {@link TAKE_BACK_MS}.
 * @returns Ids of intents to be let go, those of files among them.
 */
export function overtaken(
  queue: readonly Intent[],
  tried: ReadonlySet<string>,
  now: number,
): ReadonlySet<string> {
  const gone = new Set<string>()
  for (const [i, intent] of queue.entries()) {
    if (now - intent.at < TAKE_BACK_MS || tried.has(intent.id)) continue
    if (intent.kind === 'remove' && !intent.restore)
      for (const id of madeAndTakenOut(queue, i, tried)) gone.add(id)
    if (intent.kind === 'bin' && !intent.restore)
      for (const id of startedAndBinned(queue, i, tried)) gone.add(id)
  }
  return gone
}

function madeAndTakenOut(
  queue: readonly Intent[],
  at: number,
  tried: ReadonlySet<string>,
): string[] {
  const { partId } = queue[at] as IntentOf<'remove'>
  const added = queue.find((other) => other.kind === 'add-part' && other.partId === partId)
  // Another that takes its place needs it at school.
  const needed = queue.some(
    (other) => other.kind === 'add-part' && replacedBy(other.part) === partId,
  )
  if (added?.kind !== 'add-part' || tried.has(added.id) || needed) return []
  const files = new Set([fileOf(added.part), ...postersOf(queue, partId)])
  return queue
    .filter(
      (other) =>
        ('partId' in other && other.partId === partId) ||
        (other.kind === 'file' && files.has(other.mediaId)),
    )
    .map(({ id }) => id)
}

const postersOf = (queue: readonly Intent[], partId: string): (string | null)[] =>
  queue.flatMap((other) =>
    other.kind === 'poster' && other.partId === partId ? [other.mediaId] : [],
  )

function startedAndBinned(
  queue: readonly Intent[],
  at: number,
  tried: ReadonlySet<string>,
): string[] {
  const { pieceId } = queue[at]!
  const before = queue.filter((other, i) => other.pieceId === pieceId && i <= at)
  const never = before.some(({ kind, id }) => kind === 'start' && !tried.has(id))
  // What is on its way is waited for; then there is nothing but throwing it away.
  return before
    .filter(({ id, kind }) => !tried.has(id) && (never || kind !== 'bin'))
    .map(({ id }) => id)
}

/** Whether one intent has to wait until another, wanted before it, has reached the school. */
function waitsFor(intent: Intent, before: Intent): boolean {
  if (isMove(intent) || isMove(before)) return true
  if (before.kind === 'start') return intent.kind !== 'file'
  switch (intent.kind) {
    case 'add-part':
      return before.kind === 'file'
        ? before.mediaId === fileOf(intent.part)
        : (before.kind === 'add-part' || before.kind === 'remove') &&
            before.partId === replacedBy(intent.part)
    case 'ink':
      return before.kind === 'file'
        ? picturesIn(intent).includes(before.mediaId)
        : 'partId' in before && before.partId === intent.partId
    case 'poster':
      return before.kind === 'file'
        ? before.mediaId === intent.mediaId
        : 'partId' in before && before.partId === intent.partId
    case 'comment':
      return before.kind === 'file' && before.mediaId === intent.mediaId
    case 'content':
    case 'name':
    case 'remove':
      return 'partId' in before && before.partId === intent.partId
    case 'order':
      return before.kind === 'add-part' || before.kind === 'remove' || before.kind === 'order'
    case 'words':
    case 'makers':
      return before.kind === intent.kind
    default:
      return false
  }
}

/** Parts are hung in in the order they were made, however large their files. */
const comesAfter = (intent: Intent, before: Intent): boolean =>
  intent.kind === 'add-part' && before.kind === 'add-part'

/** How far each intent is: those that are not named wait. */
export type Standing = 'sending' | 'stuck' | 'refused' | 'asks'
type Standings = ReadonlyMap<string, Standing>

/**
 * What may be sent now, in the order it was wanted. What was refused holds up what hangs on it; a
 * piece is handed in without a part that was refused, and not while the pupil is asked something.
 */
export function readyIntents(
  queue: readonly Intent[],
  standings: Standings,
  now: number,
): readonly Intent[] {
  const held = heldBack(queue, now)
  return queue.filter((intent, i) => {
    if (standings.has(intent.id) && standings.get(intent.id) !== 'stuck') return false
    if (held.has(intent.id)) return false
    return !queue.some(
      (before, j) =>
        j < i &&
        before.pieceId === intent.pieceId &&
        (waitsFor(intent, before)
          ? !(mayGoWithout(intent, before) && isLeftOut(before, queue, standings))
          : comesAfter(intent, before) && !isLeftOut(before, queue, standings)),
    )
  })
}

/** A piece goes without what was refused; a picture that was is refused where it was to be used. */
const mayGoWithout = (intent: Intent, before: Intent): boolean =>
  isMove(intent) || ((intent.kind === 'ink' || intent.kind === 'poster') && before.kind === 'file')

/** Parts that were refused, and what was wanted of them, do not hold up the whole piece. */
function isLeftOut(intent: Intent, queue: readonly Intent[], standings: Standings): boolean {
  const refused = (other: Intent) => standings.get(other.id) === 'refused'
  if (refused(intent)) return !isMove(intent) && intent.kind !== 'start'
  if (!('partId' in intent)) return false
  const added = queue.find(
    (other) => other.kind === 'add-part' && other.partId === intent.partId,
  ) as IntentOf<'add-part'> | undefined
  if (!added) return false
  const part = added.part
  return (
    refused(added) ||
    queue.some((other) => other.kind === 'file' && other.mediaId === fileOf(part) && refused(other))
  )
}

/**
 * What was taken out or thrown away a moment ago may be taken back: nothing of it sets out. What is
 * being drawn waits for the next lines.
 */
function heldBack(queue: readonly Intent[], now: number): ReadonlySet<string> {
  const held = new Set<string>()
  for (const [i, intent] of queue.entries()) {
    if (intent.kind === 'ink' && now - intent.at < GATHER_MS) held.add(intent.id)
    const fresh = now - intent.at < TAKE_BACK_MS
    if (!fresh) continue
    if (intent.kind === 'remove' && !intent.restore)
      for (const id of madeAndTakenOut(queue, i, NONE)) held.add(id)
    if (intent.kind === 'bin' && !intent.restore)
      for (const id of startedAndBinned(queue, i, NONE)) held.add(id)
  }
  return held
}
const NONE: ReadonlySet<string> = new Set()
