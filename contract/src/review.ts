import {
  MAX_FILED_BECAUSE_LENGTH,
  MAX_MESSAGE_LENGTH,
  MAX_SECOND_LOOK_LENGTH,
  MAX_SENTENCE_LENGTH,
  MAX_SENTENCES,
  MAX_WRITING_LENGTH,
  fault,
} from '@nibquill/core'
import { TRAY_ORDERS } from '@nibquill/core/review/trayOrder'
import * as v from 'valibot'
import { asTyped, Id, PageQuery, PupilName, SeenVersion, text, words } from './common.ts'
import { PieceLine } from './pieces.ts'

/** `late`: handed in after its task was due. */
export const TrayLine = v.object({ ...PieceLine.entries, late: v.boolean() })
export type TrayLine = v.InferOutput<typeof TrayLine>
/**
 * GET /api/review/tray?after=&classId=&order=: what waits for this teacher, of all classes or of one;
 * `waiting` counts all of it, `drafts` what has something in it and is not handed in.
 */
export const Tray = v.object({
  waiting: v.number(),
  drafts: v.number(),
  pieces: v.array(TrayLine),
  next: v.nullable(v.string()),
})
export type Tray = v.InferOutput<typeof Tray>
export const TrayQuery = v.object({
  ...PageQuery.entries,
  classId: v.optional(Id),
  order: v.optional(v.picklist(TRAY_ORDERS)),
})
export type TrayQuery = v.InferOutput<typeof TrayQuery>

/** GET /api/review/drafts?after=&classId=: what has something in it and is not handed in, last changed first. */
export const Drafts = v.object({ pieces: v.array(PieceLine), next: v.nullable(v.string()) })
export type Drafts = v.InferOutput<typeof Drafts>
export const DraftsQuery = v.object({ ...PageQuery.entries, classId: v.optional(Id) })
export type DraftsQuery = v.InferOutput<typeof DraftsQuery>
/** POST /api/review/drafts/nudge: asks for drafts, on the desks of their makers. */
export const NudgeDrafts = v.strictObject({
  pieceIds: v.pipe(v.array(Id), v.minLength(1), v.maxLength(100, fault('too-many', 100))),
})
/** What was handed in meanwhile is not asked for. */
export const Nudged = v.object({ asked: v.number() })
export type Nudged = v.InferOutput<typeof Nudged>

/**
 * POST /api/review/pieces/:id: the verdict on the version that lies in the tray. What is approved may
 * be sent back later: it stays in its folder until the other go is approved.
 */
export const Decide = v.pipe(
  v.strictObject({
    move: v.picklist(['approve', 'send-back']),
    message: text(MAX_MESSAGE_LENGTH),
    /** What is said instead, or as well: a recording of one’s own, which has arrived before. */
    voiceId: v.optional(Id),
    /** Where it goes; left out: the folder the pupil chose. */
    folderId: v.optional(Id),
    /** Why there, for its makers to read. */
    because: v.optional(text(MAX_FILED_BECAUSE_LENGTH)),
    seenVersion: SeenVersion,
  }),
  v.forward(
    v.check(
      ({ move, message, voiceId }) => move === 'approve' || message !== '' || voiceId !== undefined,
      fault('without-next-step'),
    ),
    ['message'],
  ),
)
export type Decide = v.InferOutput<typeof Decide>

/**
 * POST /api/review/pieces/:id/take-back: takes back a decision one has just made; the piece lies in
 * the tray again, as it was handed in.
 */
export const TakeBack = v.strictObject({ seenVersion: SeenVersion })
export type TakeBack = v.InferOutput<typeof TakeBack>

/**
 * POST /api/review/pieces/:id/bin: what was handed in by mistake goes into the bin, unless a version of
 * it hangs in a folder; POST …/restore brings it back as it was, for 30 days.
 */
export const BinHandedIn = v.strictObject({ seenVersion: SeenVersion })

/**
 * PUT /api/review/pieces/:id/parts/:partId/transcript: what is said in a voice, a talk-through or a
 * film, typed by a teacher; it stands with the recording, whatever becomes of the piece. `seenText`
 * is what they began from: 409 `piece/part-changed` where something else stands there now.
 */
export const Transcribe = v.strictObject({
  text: asTyped(MAX_WRITING_LENGTH),
  seenText: asTyped(MAX_WRITING_LENGTH),
})
export type Transcribe = v.InferOutput<typeof Transcribe>

/**
 * A teacher's own marker on a piece: come back to this, and why. `strand`: of its task or folder; null
 * for none.
 */
export const SecondLook = v.object({
  pieceId: Id,
  title: v.string(),
  pupil: PupilName,
  className: v.string(),
  strand: v.nullable(v.string()),
  reason: v.string(),
  askedBy: v.string(),
  askedAt: v.string(),
})
export type SecondLook = v.InferOutput<typeof SecondLook>
/**
 * GET /api/review/second-looks: those of a teacher's classes that are not done. POST
 * /api/review/pieces/:id/second-look/{done,restore} ticks one, or takes the tick back. Teachers only.
 */
export const SecondLooks = v.array(SecondLook)
/** PUT /api/review/pieces/:id/second-look: marks it, or says anew why. */
export const AskSecondLook = v.strictObject({ reason: words(MAX_SECOND_LOOK_LENGTH) })

/** GET, PUT /api/review/sentences: what a teacher says again and again, their own, in their order. */
export const Sentences = v.object({
  sentences: v.pipe(
    v.array(words(MAX_SENTENCE_LENGTH)),
    v.maxLength(MAX_SENTENCES, fault('too-many', MAX_SENTENCES)),
  ),
})
export type Sentences = v.InferOutput<typeof Sentences>

/** `strand`: of its task, or of the folder it lies in. */
export const YearPiece = v.object({
  ...PieceLine.entries,
  strand: v.nullable(v.string()),
  approvedAt: v.string(),
})
export type YearPiece = v.InferOutput<typeof YearPiece>
/**
 * GET /api/review/pupils/:id: a pupil's work as their teacher looks at it. `now`: what waits, came back
 * or is half done, in this order, last changed first; `year`: what was approved in the school year
 * that runs, newest first; `binned`: what lies in the bin, and can come back.
 */
export const PupilDesk = v.object({
  now: v.array(PieceLine),
  year: v.array(YearPiece),
  binned: v.array(PieceLine),
})
export type PupilDesk = v.InferOutput<typeof PupilDesk>

export const MarkUpParams = v.object({ id: Id, versionId: Id, partId: Id })
/**
 * GET /api/review/pieces/:id/mark-ups: what teachers wrote on copies of what was handed in, one ink
 * document for a part of a version. Its makers see it once that version is decided; families never.
 */
export const MarkUp = v.object({
  versionId: Id,
  partId: Id,
  /** Of the ink, an `InkDocument`: what was handed in, fixed, and what was written on it. */
  mediaId: Id,
  by: v.string(),
  changedAt: v.string(),
})
export const MarkUps = v.array(MarkUp)
export type MarkUp = v.InferOutput<typeof MarkUp>

/**
 * POST /api/review/pieces/:id/file: puts what is approved into another folder. `because`: why, for its
 * makers to read.
 */
export const FileElsewhere = v.strictObject({
  folderId: Id,
  because: v.optional(text(MAX_FILED_BECAUSE_LENGTH)),
  seenVersion: SeenVersion,
})
export type FileElsewhere = v.InferOutput<typeof FileElsewhere>

/**
 * GET /api/review/pieces/:id/earlier: approved pieces of the same pupil in the same folder, newest
 * first, at most six.
 */
export const Earlier = v.array(PieceLine)
