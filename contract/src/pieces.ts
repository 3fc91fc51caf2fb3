import { MAX_PARTS, MAX_REFLECTION_LENGTH, MAX_TITLE_LENGTH, PIECE_STATES, PIECE_STEPS } from '@nibquill/core'
import * as v from 'valibot'
import { FolderLook, Id, PupilName, SeenVersion, Term, text, words } from './common.ts'

/**
 * One photo of a piece. Reads at `/api/media/<mediaId>/<size>`: 320, 960, 2048 or `full`.
 * `ready` says that the sizes are made; until then `full` is what there is.
 */
export const Part = v.object({
  id: Id,
  kind: v.picklist(['photo']),
  name: v.string(),
  mediaId: Id,
  /** Upright pixel size. */
  width: v.number(),
  height: v.number(),
  sizeBytes: v.number(),
  state: v.picklist(['arrived', 'ready', 'damaged']),
})
export type Part = v.InferOutput<typeof Part>

/** A piece in a list. */
export const PieceLine = v.object({
  id: Id,
  title: v.string(),
  state: v.picklist(PIECE_STATES),
  /** How often it was handed in. */
  goes: v.number(),
  folder: v.nullable(FolderLook),
  pupil: PupilName,
  taskTitle: v.nullable(v.string()),
  cover: v.nullable(Part),
  partCount: v.number(),
  changedAt: v.string(),
  submittedAt: v.nullable(v.string()),
  /** The teacher's last words on it. */
  message: v.nullable(v.string()),
})
export type PieceLine = v.InferOutput<typeof PieceLine>

/** What was handed in at one moment; never changed afterwards. */
export const Version = v.object({
  id: Id,
  number: v.number(),
  title: v.string(),
  reflection: v.string(),
  step: v.picklist(PIECE_STEPS),
  submittedAt: v.string(),
  withdrawnAt: v.nullable(v.string()),
  parts: v.array(Part),
  decision: v.nullable(
    v.object({ move: v.picklist(['approve', 'send-back']), message: v.string(), decidedAt: v.string(), decidedBy: v.string() }),
  ),
})
export type Version = v.InferOutput<typeof Version>

/** GET /api/pieces/:id: everything its makers and their teacher see. Words and parts are those being worked on; versions newest first. */
export const Piece = v.object({
  ...PieceLine.entries,
  version: SeenVersion,
  reflection: v.string(),
  step: v.picklist(PIECE_STEPS),
  task: v.nullable(v.object({ id: Id, title: v.string(), folderChangeable: v.boolean() })),
  /** Started by the teacher for everyone; closed ones cannot be changed. */
  classPiece: v.nullable(v.object({ id: Id, title: v.string(), instructions: v.string(), closed: v.boolean() })),
  makers: v.array(PupilName),
  suggestedTitle: v.string(),
  parts: v.array(Part),
  versions: v.array(Version),
  term: v.nullable(Term),
  className: v.string(),
  approved: v.boolean(),
  pick: v.nullable(v.object({ termId: Id, termName: v.string(), reason: v.string() })),
})
export type Piece = v.InferOutput<typeof Piece>

/** GET /api/pieces: a pupil's own pieces that are on the go, in the tray or back for another go, last changed first. */
export const MyPieces = v.object({ pieces: v.array(PieceLine), trayCount: v.number(), approvedCount: v.number() })
export type MyPieces = v.InferOutput<typeof MyPieces>

/** PUT /api/pieces/:id: starts a piece; the same id again answers with the piece as it is. */
export const StartPiece = v.strictObject({ taskId: v.nullable(Id) })
export type StartPiece = v.InferOutput<typeof StartPiece>

/** PATCH /api/pieces/:id: what is left out stays. */
export const ChangePiece = v.strictObject({
  seenVersion: SeenVersion,
  title: v.optional(text(MAX_TITLE_LENGTH)),
  reflection: v.optional(text(MAX_REFLECTION_LENGTH)),
  step: v.optional(v.picklist(PIECE_STEPS)),
  folderId: v.optional(Id),
})
export type ChangePiece = v.InferOutput<typeof ChangePiece>

/** PUT /api/pieces/:id/parts/:partId: hangs an arrived file into the piece; the same part again changes nothing. */
export const AddPart = v.strictObject({ mediaId: Id, name: text(200) })
export type AddPart = v.InferOutput<typeof AddPart>
export const PartParams = v.object({ id: Id, partId: Id })
export { MAX_PARTS }

/** POST /api/pieces/:id/{hand-in,withdraw,another-go} */
export const MoveRequest = v.strictObject({ seenVersion: SeenVersion })
export type MoveRequest = v.InferOutput<typeof MoveRequest>

/** PUT /api/pieces/for-everyone/:id: starts the same piece for every pupil of a class; the same id again changes nothing. */
export const StartForEveryone = v.strictObject({
  classId: Id,
  folderId: Id,
  title: words(MAX_TITLE_LENGTH),
  instructions: text(2000),
})
export type StartForEveryone = v.InferOutput<typeof StartForEveryone>
/** GET /api/pieces/for-everyone: of a teacher's classes, newest first. POST …/:id/{close,open}: closing hands in what has something in it. */
export const ClassPiece = v.object({
  id: Id,
  title: v.string(),
  instructions: v.string(),
  className: v.string(),
  folder: FolderLook,
  createdAt: v.string(),
  closed: v.boolean(),
  /** Pupils who have put something in, of all. */
  begun: v.number(),
  pupils: v.number(),
})
export const ClassPieces = v.array(ClassPiece)
export type ClassPiece = v.InferOutput<typeof ClassPiece>
