import {
  COMMENT_STATES,
  fault,
  MAX_COMMENT_LENGTH,
  MAX_HELD_WORD_LENGTH,
  MAX_HELD_WORDS,
  MAX_HIDDEN_WHY_LENGTH,
} from '@nibquill/core'
import * as v from 'valibot'
import { Id, Peg, PupilName, Spoken, text, words } from './common.ts'

/** Who said something. `peg`: of a pupil. `mine`: the asking person did. */
export const SaidBy = v.object({
  id: Id,
  name: v.string(),
  role: v.picklist(['pupil', 'teacher', 'parent']),
  peg: v.nullable(Peg),
  mine: v.boolean(),
})
export type SaidBy = v.InferOutput<typeof SaidBy>

const said = {
  id: Id,
  by: SaidBy,
  words: v.string(),
  voice: v.nullable(Spoken),
  saidAt: v.string(),
}

/** What is said under a piece. */
export const Comment = v.object({
  ...said,
  state: v.picklist(COMMENT_STATES),
  /** What its author thinks of what they made with others. */
  thoughts: v.boolean(),
  /** Why it was hidden, for its author and for teachers. */
  hiddenWhy: v.string(),
  /** The one it answers. */
  answersId: v.nullable(Id),
})
export type Comment = v.InferOutput<typeof Comment>

/** What a pupil and one teacher say to each other on a piece: seen by those two. */
export const PrivateWord = v.object({ ...said, pupil: PupilName, teacherName: v.string() })
export type PrivateWord = v.InferOutput<typeof PrivateWord>

/**
 * GET /api/comments/pieces/:id: what the asking person sees under a piece, first said first. `with`:
 * whom they can talk to in private there: of a pupil's teachers, or of a piece's makers.
 */
export const Comments = v.object({
  comments: v.array(Comment),
  privateWords: v.array(PrivateWord),
  with: v.array(v.object({ id: Id, name: v.string() })),
})
export type Comments = v.InferOutput<typeof Comments>

const saying = {
  pieceId: Id,
  words: text(MAX_COMMENT_LENGTH),
  /** What is said instead, or as well: a recording of one’s own, which has arrived before. */
  voiceId: v.optional(Id),
}
/** As `check` asks for it: whether anything is said. */
const saysSomething = (said: { words: string; voiceId?: string | undefined }): boolean =>
  said.words !== '' || said.voiceId !== undefined

/**
 * PUT /api/comments/:id: says it; the same id again changes nothing. Only teachers answer. `thoughts`:
 * what a pupil thinks of what they made with others, once it is approved (422 `piece/not-together`
 * else); their own family reads it as well, once it is shown.
 */
export const SayComment = v.pipe(
  v.strictObject({ ...saying, answersId: v.optional(Id), thoughts: v.optional(v.boolean()) }),
  v.forward(
    v.check((said) => saysSomething(said), fault('says-nothing')),
    ['words'],
  ),
)
export type SayComment = v.InferOutput<typeof SayComment>

/** PUT /api/comments/private/:id: a private word; the same id again changes nothing. */
export const SayPrivately = v.pipe(
  v.strictObject({ ...saying, withId: Id }),
  v.forward(
    v.check((said) => saysSomething(said), fault('says-nothing')),
    ['words'],
  ),
)
export type SayPrivately = v.InferOutput<typeof SayPrivately>

/**
 * POST /api/comments/:id/{show,hide}: a teacher's word on a comment. `seenState` is how they saw it:
 * 409 `comment/decided-already` with `state` where it stands otherwise by now.
 */
export const DecideComment = v.strictObject({
  seenState: v.picklist(COMMENT_STATES),
  /** For its author, where it is hidden. */
  why: v.optional(text(MAX_HIDDEN_WHY_LENGTH)),
})
export type DecideComment = v.InferOutput<typeof DecideComment>

/**
 * GET /api/comments/waiting: comments of pupils and parents that wait for this teacher, first said
 * first. `held`: entries of the school's word list that stand in it.
 */
export const WaitingComment = v.object({
  ...Comment.entries,
  pieceId: Id,
  title: v.string(),
  pupil: PupilName,
  className: v.string(),
  held: v.array(v.string()),
})
export const WaitingComments = v.array(WaitingComment)
export type WaitingComment = v.InferOutput<typeof WaitingComment>

/**
 * GET, PUT /api/comments/held-words: words the school wants a closer look at, for whoever leads it. One
 * that ends in `*` stands for every word that begins like it.
 */
export const HeldWords = v.object({
  words: v.pipe(
    v.array(words(MAX_HELD_WORD_LENGTH)),
    v.maxLength(MAX_HELD_WORDS, fault('too-many', MAX_HELD_WORDS)),
  ),
})
export type HeldWords = v.InferOutput<typeof HeldWords>

/**
 * POST /api/comments/private/open: the private words of one pupil, read by whoever leads the school
 * because the pupil's safety asks for it. Each such look is noted with its reason.
 */
export const OpenPrivateWords = v.strictObject({
  pupilId: Id,
  reason: words(MAX_HIDDEN_WHY_LENGTH),
})
export type OpenPrivateWords = v.InferOutput<typeof OpenPrivateWords>
export const OpenedPrivateWords = v.array(
  v.object({ ...PrivateWord.entries, pieceId: Id, title: v.string() }),
)
export type OpenedPrivateWords = v.InferOutput<typeof OpenedPrivateWords>
