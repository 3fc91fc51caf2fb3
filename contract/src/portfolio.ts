import * as v from 'valibot'
import { Id, PupilName, Spoken, Term, text } from './common.ts'
import { Part, PieceLine } from './pieces.ts'

export const MAX_REASON_LENGTH = 500

/** A piece chosen into a chapter, with the reason why, written, said or both. */
export const Pick = v.object({
  pieceId: Id,
  reason: v.string(),
  voice: v.nullable(Spoken),
  piece: PieceLine,
})
export type Pick = v.InferOutput<typeof Pick>

/**
 * One term of a portfolio: picks in the pupil's order, then the term's other approved pieces,
 * newest first.
 */
export const Chapter = v.object({
  term: Term,
  running: v.boolean(),
  picks: v.array(Pick),
  others: v.array(PieceLine),
})
export type Chapter = v.InferOutput<typeof Chapter>

/** GET /api/portfolio/:id (a pupil's): chapters newest first. */
export const Portfolio = v.object({
  pupil: PupilName,
  className: v.nullable(v.string()),
  chapters: v.array(Chapter),
})
export type Portfolio = v.InferOutput<typeof Portfolio>

/**
 * PUT /api/portfolio/:id/picks/:pieceId: `place` from 0; left out: stays, or last when new.
 * `voiceId`: the reason said, a recording of one’s own that has arrived before; null: none; left out:
 * stays.
 */
export const PutPick = v.strictObject({
  reason: text(MAX_REASON_LENGTH),
  voiceId: v.optional(v.nullable(Id)),
  place: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0))),
})
export type PutPick = v.InferOutput<typeof PutPick>
export const PickParams = v.object({ id: Id, pieceId: Id })

/** An approved piece as parents and page-link holders see it: the approved version only. */
export const SharedPiece = v.object({
  id: Id,
  title: v.string(),
  pupilFirstName: v.string(),
  folderName: v.string(),
  termName: v.nullable(v.string()),
  approvedAt: v.string(),
  reflection: v.string(),
  reason: v.nullable(v.string()),
  reasonVoice: v.nullable(Spoken),
  parts: v.array(Part),
})
export type SharedPiece = v.InferOutput<typeof SharedPiece>
