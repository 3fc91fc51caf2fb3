import {
  BRIGHTEN_WAYS,
  LEAST_TRIM,
  LONGEST_VOICE_MS,
  MAX_PART_NAME_LENGTH,
  MAX_PARTS,
  MAX_REFLECTION_LENGTH,
  MAX_TITLE_LENGTH,
  MAX_WRITING_LENGTH,
  MOST_DEGREES,
  PIECE_STATES,
  PIECE_STEPS,
  MAX_ADDRESS_LENGTH,
  fault,
  readAddress,
} from '@nibquill/core'
import * as v from 'valibot'
import {
  asTyped,
  FileState,
  FolderLook,
  Id,
  PartAsked,
  PupilName,
  SeenVersion,
  Spoken,
  Term,
  text,
  words,
} from './common.ts'

const between = (low: number, high: number) =>
  v.pipe(v.number(), v.finite(), v.minValue(low), v.maxValue(high))
/** A corner may lie a little outside the photo. */
const Corner = v.strictObject({ x: between(-0.5, 1.5), y: between(-0.5, 1.5) })

/** How a photo was tidied on its tablet. @see core/src/tidy/tidying.ts for units and order */
export const Tidying = v.strictObject({
  corners: v.nullable(v.strictTuple([Corner, Corner, Corner, Corner])),
  quarters: v.picklist([0, 1, 2, 3]),
  degrees: between(-MOST_DEGREES, MOST_DEGREES),
  trim: v.pipe(
    v.strictObject({
      left: between(0, 1),
      top: between(0, 1),
      right: between(0, 1),
      bottom: between(0, 1),
    }),
    v.check(
      ({ left, right, top, bottom }) => Math.min(right - left, bottom - top) >= LEAST_TRIM / 2,
      fault('leaves-nothing'),
    ),
  ),
  brighten: v.nullable(v.strictObject({ way: v.picklist(BRIGHTEN_WAYS), strength: between(0, 1) })),
})

/** A file of a part. Reads at `/api/media/<mediaId>/<form>`: a form made of it, or `full`. */
export const PartFile = v.object({
  mediaId: Id,
  sizeBytes: v.number(),
  /** SHA-256 (hex) of the file as its tablet sent it: the same photo twice is known by it. */
  sentSha256: v.string(),
  state: FileState,
})
export type PartFile = v.InferOutput<typeof PartFile>

const part = { id: Id, name: v.string() }
export const PhotoPart = v.object({
  ...part,
  kind: v.literal('photo'),
  files: v.object({ picture: PartFile }),
  /** Upright pixel size. */
  width: v.number(),
  height: v.number(),
  /**
   * Where it was tidied: the file as it was taken, and the recipe that leads from there to here.
   */
  tidied: v.nullable(v.object({ originalMediaId: Id, tidying: Tidying })),
})
export type PhotoPart = v.InferOutput<typeof PhotoPart>
export const DrawingPart = v.object({
  ...part,
  kind: v.literal('drawing'),
  /** Its ink, an `InkDocument`; its forms are pictures of its first sheet. */
  files: v.object({ ink: PartFile }),
  /** Of its first sheet, in hundredths of a millimetre. */
  width: v.number(),
  height: v.number(),
  sheets: v.number(),
})
export type DrawingPart = v.InferOutput<typeof DrawingPart>
export const WritingPart = v.object({
  ...part,
  kind: v.literal('writing'),
  files: v.object({}),
  /** Plain text; its beginning only where it stands for a piece in a list. */
  text: v.string(),
})
export type WritingPart = v.InferOutput<typeof WritingPart>

/** All of a recording but the silence at its ends, in milliseconds from its beginning. */
export const Stretch = v.pipe(
  v.strictObject({
    fromMs: v.pipe(v.number(), v.integer(), v.minValue(0)),
    toMs: v.pipe(v.number(), v.integer(), v.maxValue(2 * LONGEST_VOICE_MS)),
  }),
  v.check(({ fromMs, toMs }) => fromMs < toMs, fault('leaves-nothing')),
)

export const VoicePart = v.object({
  ...part,
  kind: v.literal('voice'),
  /** What was said; its forms are what every browser plays, and what is drawn of it. */
  files: v.object({ sound: PartFile }),
  /** What is said in it, typed by its makers; empty where nobody has. */
  text: v.string(),
  /** The same, typed by a teacher. */
  typed: v.string(),
  /** What of it is played; null where all is. */
  heard: v.nullable(Stretch),
})
export type VoicePart = v.InferOutput<typeof VoicePart>

export const TalkPart = v.object({
  ...part,
  kind: v.literal('talk'),
  /**
   * What was drawn, an `InkOfTalk`, and what was said meanwhile. The forms of the
   * ink are pictures of the sheet as it was left.
   */
  files: v.object({ ink: PartFile, sound: PartFile }),
  /** Of its sheet, in hundredths of a millimetre. */
  width: v.number(),
  height: v.number(),
  /** What is said in it, typed by its makers; empty where nobody has. */
  text: v.string(),
  /** The same, typed by a teacher. */
  typed: v.string(),
})
export type TalkPart = v.InferOutput<typeof TalkPart>

export const FilmPart = v.object({
  ...part,
  kind: v.literal('film'),
  /**
   * Its forms are what every browser plays, what is drawn of its sound, and pictures of a moment in
   * it. `poster`: what stands for it instead of those, where its makers chose that.
   */
  files: v.object({ film: PartFile, poster: v.optional(PartFile) }),
  /** Upright pixel size. */
  width: v.number(),
  height: v.number(),
  /** What is said in it, typed by its makers; empty where nobody has. */
  text: v.string(),
  /** The same, typed by a teacher. */
  typed: v.string(),
})
export type FilmPart = v.InferOutput<typeof FilmPart>

export const PagePart = v.object({
  ...part,
  kind: v.literal('page'),
  /** A PDF; its forms are its pages, `page-1` and on, and sizes of the first. */
  files: v.object({ paper: PartFile }),
  /** How many it has, whatever is shown. */
  pages: v.number(),
})
export type PagePart = v.InferOutput<typeof PagePart>

export const LinkPart = v.object({
  ...part,
  kind: v.literal('link'),
  files: v.object({}),
  /** http or https; nobody at school ever fetches it. */
  address: v.string(),
})
export type LinkPart = v.InferOutput<typeof LinkPart>

/** One part of a piece: what its kind brings, and its files by their role in it. */
export const Part = v.variant('kind', [
  PhotoPart,
  DrawingPart,
  WritingPart,
  VoicePart,
  TalkPart,
  FilmPart,
  PagePart,
  LinkPart,
])
export type Part = v.InferOutput<typeof Part>

/** A piece in a list. */
export const PieceLine = v.object({
  id: Id,
  title: v.string(),
  state: v.picklist(PIECE_STATES),
  step: v.picklist(PIECE_STEPS),
  /** How often it was handed in. */
  goes: v.number(),
  folder: v.nullable(FolderLook),
  pupil: PupilName,
  task: v.nullable(v.object({ id: Id, title: v.string() })),
  cover: v.nullable(Part),
  partCount: v.number(),
  changedAt: v.string(),
  submittedAt: v.nullable(v.string()),
  /** Its teacher started it for everyone and has closed it. */
  closed: v.boolean(),
  /** When its teacher asked for it, while it is not handed in. */
  nudgedAt: v.nullable(v.string()),
  /** The teacher's last words on it, written, said or both. */
  message: v.nullable(v.string()),
  voice: v.nullable(Spoken),
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
  makers: v.array(PupilName),
  decision: v.nullable(
    v.object({
      move: v.picklist(['approve', 'send-back']),
      message: v.string(),
      voice: v.nullable(Spoken),
      decidedAt: v.string(),
      decidedBy: v.string(),
      /** It went into another folder than its makers thought: from where, into which, and why. */
      filed: v.nullable(v.object({ from: v.string(), into: v.string(), because: v.string() })),
    }),
  ),
})
export type Version = v.InferOutput<typeof Version>

/**
 * GET /api/pieces/:id: everything its makers and their teacher see. Words and parts are those being
 * worked on; versions newest first.
 */
export const Piece = v.object({
  ...PieceLine.entries,
  version: SeenVersion,
  reflection: v.string(),
  task: v.nullable(
    v.object({
      id: Id,
      title: v.string(),
      folderChangeable: v.boolean(),
      asksThoughts: v.boolean(),
      asks: v.array(PartAsked),
    }),
  ),
  /** Started by the teacher for everyone; closed ones cannot be changed. */
  classPiece: v.nullable(
    v.object({ id: Id, title: v.string(), instructions: v.string(), closed: v.boolean() }),
  ),
  makers: v.array(PupilName),
  /**
   * False for a pupil who made the approved version and was left out of the next go: they see that
   * version, and nothing can be done with it.
   */
  mayChange: v.boolean(),
  suggestedTitle: v.string(),
  parts: v.array(Part),
  versions: v.array(Version),
  term: v.nullable(Term),
  classId: Id,
  className: v.string(),
  approved: v.boolean(),
  pick: v.nullable(
    v.object({
      termId: Id,
      termName: v.string(),
      reason: v.string(),
      voice: v.nullable(Spoken),
    }),
  ),
})
export type Piece = v.InferOutput<typeof Piece>

/**
 * GET /api/pieces: a pupil's own pieces that are on the go, in the tray or back for another go,
 * last changed first.
 */
export const MyPieces = v.object({
  pieces: v.array(PieceLine),
  trayCount: v.number(),
  approvedCount: v.number(),
})
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

/**
 * PUT /api/pieces/:id/parts/:partId: puts a part into the piece, last; the same part again changes
 * nothing. Files have arrived before. A talk-through has a way of its own, `AddTalk`.
 * `instead` takes the place of another part of it: a photo tidied from that one. Without a recipe
 * it is as it was again.
 */
export const AddPart = v.variant('kind', [
  v.strictObject({
    kind: v.literal('photo'),
    name: text(MAX_PART_NAME_LENGTH),
    files: v.strictObject({ picture: Id }),
    instead: v.optional(v.strictObject({ partId: Id, tidying: v.nullable(Tidying) })),
  }),
  v.strictObject({
    kind: v.literal('drawing'),
    name: text(MAX_PART_NAME_LENGTH),
    files: v.strictObject({ ink: Id }),
  }),
  v.strictObject({
    kind: v.literal('writing'),
    name: text(MAX_PART_NAME_LENGTH),
    text: asTyped(MAX_WRITING_LENGTH),
  }),
  v.strictObject({
    kind: v.literal('voice'),
    name: text(MAX_PART_NAME_LENGTH),
    files: v.strictObject({ sound: Id }),
    heard: v.optional(Stretch),
  }),
  v.strictObject({
    kind: v.literal('film'),
    name: text(MAX_PART_NAME_LENGTH),
    files: v.strictObject({ film: Id }),
  }),
  v.strictObject({
    kind: v.literal('page'),
    name: text(MAX_PART_NAME_LENGTH),
    files: v.strictObject({ paper: Id }),
  }),
  v.strictObject({
    kind: v.literal('link'),
    name: text(MAX_PART_NAME_LENGTH),
    address: v.pipe(
      text(MAX_ADDRESS_LENGTH),
      v.check((typed) => typeof readAddress(typed) !== 'string', fault('not-an-address')),
    ),
  }),
])
export type AddPart = v.InferOutput<typeof AddPart>
/**
 * PUT /api/pieces/:id/parts/:partId/text: what stands in a writing, or is said in a voice, a talk-through
 * or a film,
 * in words. `seenText` is what its writer
 * began from: where something else stands there now, nothing is written over (409
 * `piece/part-changed`).
 */
export const WritePart = v.strictObject({
  text: asTyped(MAX_WRITING_LENGTH),
  seenText: asTyped(MAX_WRITING_LENGTH),
})
export type WritePart = v.InferOutput<typeof WritePart>
/**
 * PATCH /api/pieces/:id/parts/:partId: a part's own name; handed-in versions keep the one they had.
 */
export const NamePart = v.strictObject({ name: text(MAX_PART_NAME_LENGTH) })
/**
 * PUT /api/pieces/:id/parts/:partId/poster: the picture that stands for a film; null for the school's
 * own choice. Handed-in versions keep the one they had.
 */
export const ChoosePoster = v.strictObject({ mediaId: v.nullable(Id) })
export const PartParams = v.object({ id: Id, partId: Id })
/** PUT /api/pieces/:id/order: parts that are not named here keep their order and follow. */
export const OrderParts = v.strictObject({
  partIds: v.pipe(v.array(Id), v.maxLength(2 * MAX_PARTS)),
})

/** GET /api/pieces/classmates: whom a pupil can make something together with; first names only. */
export const Classmates = v.array(PupilName)
/** PUT /api/pieces/:id/makers: everyone who makes it beside the one who began it. */
export const MakePieceTogether = v.strictObject({ makerIds: v.pipe(v.array(Id), v.maxLength(40)) })

/** POST /api/pieces/:id/{hand-in,withdraw,another-go} */
export const MoveRequest = v.strictObject({ seenVersion: SeenVersion })
export type MoveRequest = v.InferOutput<typeof MoveRequest>

/**
 * PUT /api/pieces/for-everyone/:id: starts the same piece for every pupil of a class; the same id
 * again changes nothing.
 */
export const StartForEveryone = v.strictObject({
  classId: Id,
  folderId: Id,
  title: words(MAX_TITLE_LENGTH),
  instructions: text(2000),
})
export type StartForEveryone = v.InferOutput<typeof StartForEveryone>
/**
 * GET /api/pieces/for-everyone: of a teacher's classes, newest first. POST …/:id/{close,open}:
 * closing hands in what has something in it.
 */
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
