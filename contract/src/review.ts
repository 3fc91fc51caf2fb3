import { MAX_MESSAGE_LENGTH } from '@nibquill/core'
import * as v from 'valibot'
import { Id, SeenVersion, text } from './common.ts'
import { PieceLine } from './pieces.ts'

/**
 * GET /api/review/tray?after=: what waits for this teacher, first handed in first; `waiting` counts
 * all of it, `drafts` what is not handed in.
 */
export const Tray = v.object({
  waiting: v.number(),
  drafts: v.number(),
  pieces: v.array(PieceLine),
  next: v.nullable(v.string()),
})
export type Tray = v.InferOutput<typeof Tray>

/** A keyset cursor: opaque to clients. */
export const PageQuery = v.object({ after: v.optional(v.pipe(v.string(), v.maxLength(200))) })

/** POST /api/review/pieces/:id: the verdict on the version that lies in the tray. */
export const Decide = v.pipe(
  v.strictObject({
    move: v.picklist(['approve', 'send-back']),
    message: text(MAX_MESSAGE_LENGTH),
    /** Where it goes; left out: the folder the pupil chose. */
    folderId: v.optional(Id),
    seenVersion: SeenVersion,
  }),
  v.forward(
    v.check(
      (decision) => decision.move === 'approve' || decision.message !== '',
      'says what to do next',
    ),
    ['message'],
  ),
)
export type Decide = v.InferOutput<typeof Decide>

/**
 * GET /api/review/pieces/:id/earlier: approved pieces of the same pupil in the same folder, newest
 * first, at most six.
 */
export const Earlier = v.array(PieceLine)
