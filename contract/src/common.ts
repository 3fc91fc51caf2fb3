import { ASKABLE_PARTS, COLOURS, FOLDER_SYMBOLS, PEG_SYMBOLS, fault } from '@nibquill/core'
import * as v from 'valibot'

/** Ids are UUIDs (RFC 9562); those made by clients are version 7. */
export const Id = v.pipe(v.string(), v.uuid())
/** A moment in UTC, ISO 8601 with milliseconds. */
export const Moment = v.pipe(v.string(), v.isoTimestamp())
/** A calendar day of the school, `YYYY-MM-DD`. */
export const Day = v.pipe(v.string(), v.isoDate())
/** A time on the school's own clock, `HH:mm`. */
export const Time = v.pipe(v.string(), v.regex(/^([01]\d|2[0-3]):[0-5]\d$/, fault('not-a-time')))
/** The `version` of a changeable thing as the person saw it; a stale one is answered with 409. */
export const SeenVersion = v.pipe(v.number(), v.integer(), v.minValue(1))

/**
 * Text of people as they typed it: no control characters but line ends and tabs, no unpaired
 * surrogates, at most `max` UTF-16 units.
 */
export const asTyped = (max: number) =>
  v.pipe(
    v.string(),
    // Unpaired surrogates cannot be stored as UTF-8, and control characters are never meant.
    v.check(
      (value) => value.isWellFormed() && !/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/.test(value),
      fault('unkeepable'),
    ),
    v.maxLength(max, fault('too-long', max)),
  )
/** As `asTyped`, without the spaces around it, which do not count. */
export const text = (max: number) => v.pipe(v.string(), v.trim(), asTyped(max))
/** As `text`, and something must stand there. */
export const words = (max: number) => v.pipe(text(max), v.minLength(1, fault('empty')))

export const Email = v.pipe(
  v.string(),
  v.trim(),
  v.toLowerCase(),
  v.maxLength(254),
  v.email(fault('not-an-email')),
)

export const Peg = v.object({ symbol: v.picklist(PEG_SYMBOLS), colour: v.picklist(COLOURS) })
export type Peg = v.InferOutput<typeof Peg>

/** A pupil as their teacher, their parent or they themselves see them. */
export const PupilName = v.object({ id: Id, firstName: v.string(), lastName: v.string(), peg: Peg })
export type PupilName = v.InferOutput<typeof PupilName>

/** A folder as it stands on a piece: enough to draw it. */
export const FolderLook = v.object({
  id: Id,
  name: v.string(),
  symbol: v.picklist(FOLDER_SYMBOLS),
  colour: v.picklist(COLOURS),
})
export type FolderLook = v.InferOutput<typeof FolderLook>

/** A term as it heads a chapter. */
export const Term = v.object({ id: Id, name: v.string(), startsOn: Day, endsOn: Day })
export type Term = v.InferOutput<typeof Term>

/** Nothing to say but that it was done. */
export const Done = v.object({ done: v.literal(true) })
export const DONE: v.InferOutput<typeof Done> = { done: true }

export const IdParams = v.object({ id: Id })
/** A keyset cursor: opaque to clients. */
export const PageQuery = v.object({ after: v.optional(v.pipe(v.string(), v.maxLength(200))) })

/**
 * `arrived` while the forms of a file are to be made, `ready` when they are (or there are none);
 * `damaged` when nothing can be made of it, `unmade` when that took more time or memory than there
 * is. Until they are made, and where they are not, `full` is what there is.
 */
export const FileState = v.picklist(['arrived', 'ready', 'damaged', 'unmade'])
export type FileState = v.InferOutput<typeof FileState>

/** What a teacher said, to be heard; reads at `/api/media/<mediaId>/playable`. */
export const Spoken = v.object({ mediaId: Id, state: FileState })
export type Spoken = v.InferOutput<typeof Spoken>

/** A kind of part a task asks for, and how many of it. */
export const PartAsked = v.object({
  kind: v.picklist(ASKABLE_PARTS),
  count: v.pipe(
    v.number(),
    v.integer(),
    v.minValue(1, fault('too-few', 1)),
    v.maxValue(30, fault('too-many', 30)),
  ),
})
