import { COLOURS, FOLDER_SYMBOLS, fault, MAX_SOUGHT_LENGTH } from '@nibquill/core'
import * as v from 'valibot'
import { FolderLook, Id, PageQuery, SeenVersion, text, words } from './common.ts'
import { PieceLine } from './pieces.ts'

/**
 * GET /api/folders?away=1: for a pupil the folders of their class and school with their own
 * approved pieces counted; for a teacher with the class's.
 */
export const Folder = v.object({
  ...FolderLook.entries,
  strand: v.nullable(v.string()),
  strandId: v.nullable(Id),
  parentsSee: v.boolean(),
  pupilsFile: v.boolean(),
  wholeSchool: v.boolean(),
  classIds: v.array(Id),
  /** Classes it belongs to, by name; null: the whole school. */
  className: v.nullable(v.string()),
  /** A pupil's own folder: whose, and whether a teacher agreed to it. */
  owner: v.nullable(v.object({ id: Id, name: v.string(), agreed: v.boolean() })),
  putAway: v.boolean(),
  /** Whether the asking person belongs to it: of its class, or it is the whole school's. */
  member: v.boolean(),
  /** Whether the asking person may change it. */
  mayChange: v.boolean(),
  pieceCount: v.number(),
  version: SeenVersion,
})
export const Folders = v.array(Folder)
export type Folder = v.InferOutput<typeof Folder>
export const FoldersQuery = v.object({ away: v.optional(v.string()) })

/** A month as people look for it, `YYYY-MM`. */
export const Month = v.pipe(v.string(), v.regex(/^\d{4}-(0[1-9]|1[0-2])$/, fault('unusable')))
/**
 * GET /api/folders/:id?after=&words=&month=: newest first; `next` continues the list. `words`: only
 * pieces in whose title, thoughts, writings or what is said in them all of these stand, or in the
 * names of who made them. `month`: only what was approved in it.
 */
export const FolderQuery = v.object({
  ...PageQuery.entries,
  words: v.optional(text(MAX_SOUGHT_LENGTH)),
  month: v.optional(Month),
})
export type FolderQuery = v.InferOutput<typeof FolderQuery>
export const FolderDetail = v.object({
  ...Folder.entries,
  pieces: v.array(PieceLine),
  next: v.nullable(v.string()),
  /** In which something was approved, newest first, whatever is looked for. */
  months: v.array(Month),
})
export type FolderDetail = v.InferOutput<typeof FolderDetail>

/**
 * GET, PUT /api/folders/kept/:id: where the asking pupil keeps a piece they made; null: where it was
 * approved into. Nobody else’s shelf changes. `together`: others made it as well; only then, and where
 * its task leaves a choice, `mayChoose`.
 */
export const KeptIn = v.object({
  folder: v.nullable(FolderLook),
  together: v.boolean(),
  mayChoose: v.boolean(),
})
export type KeptIn = v.InferOutput<typeof KeptIn>
export const KeepIn = v.strictObject({ folderId: v.nullable(Id) })
export type KeepIn = v.InferOutput<typeof KeepIn>

const LOOK = { name: words(60), symbol: v.picklist(FOLDER_SYMBOLS), colour: v.picklist(COLOURS) }
const RULES = {
  ...LOOK,
  strandId: v.nullable(Id),
  /** Empty only for a folder of the whole school. */
  classIds: v.array(Id),
  wholeSchool: v.boolean(),
  parentsSee: v.boolean(),
  pupilsFile: v.boolean(),
}
type Home = { wholeSchool: boolean; classIds: string[] }
const hasHome = ({ wholeSchool, classIds }: Home): boolean => wholeSchool || classIds.length > 0
const NO_HOME = fault('for-no-class')
/** PUT /api/folders/:id: makes a folder, last in the order; the same id again changes nothing. */
export const MakeFolder = v.pipe(
  v.strictObject(RULES),
  v.forward(
    v.check((folder) => hasHome(folder), NO_HOME),
    ['classIds'],
  ),
)
export type MakeFolder = v.InferOutput<typeof MakeFolder>
/** PATCH /api/folders/:id */
export const ChangeFolder = v.pipe(
  v.strictObject({ ...RULES, seenVersion: SeenVersion }),
  v.forward(
    v.check((folder) => hasHome(folder), NO_HOME),
    ['classIds'],
  ),
)
export type ChangeFolder = v.InferOutput<typeof ChangeFolder>
/** POST /api/folders/order: ids in the order they shall stand. */
export const OrderFolders = v.strictObject({ ids: v.pipe(v.array(Id), v.maxLength(500)) })
/** POST /api/folders/ready-set: makes the ready folders a class does not have yet. */
export const ReadySet = v.strictObject({ classId: Id })
/** PUT /api/folders/proposals/:id: a pupil's idea for a folder of their own. */
export const ProposeFolder = v.strictObject(LOOK)
export type ProposeFolder = v.InferOutput<typeof ProposeFolder>

/**
 * GET /api/folders/strands; PUT replaces the list: those left out go, and their folders and tasks
 * stand without one.
 */
export const Strand = v.object({ id: Id, name: words(60) })
export const Strands = v.pipe(v.array(Strand), v.maxLength(40, fault('too-many', 40)))
export type Strand = v.InferOutput<typeof Strand>
