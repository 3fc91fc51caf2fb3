import type { PartKind } from '../pieces/parts.ts'
import {
  emptySheet,
  SHEET_SIZE,
  type InkDocument,
  type InkSheet,
  type LaidPicture,
} from './document.ts'

/** Kinds of parts a teacher can write on a copy of. */
export const MARKED_KINDS = ['photo', 'drawing', 'page'] as const satisfies readonly PartKind[]
export const canBeMarked = (kind: PartKind): boolean =>
  (MARKED_KINDS as readonly PartKind[]).includes(kind)

/**
 * A copy of a drawing to be written on: nothing that was drawn on it can be moved or rubbed out.
 * @see markedBy
 */
export const copyToMark = (ink: InkDocument): InkDocument => ({
  ...ink,
  sheets: ink.sheets.map((sheet) => ({
    ...sheet,
    things: sheet.things.map((thing) => ({ ...thing, fixed: true as const })),
  })),
})

/**
 * A sheet as large as a picture, with the picture fixed on it, to be written on.
 * @param size - Of the picture, in whatever unit; 4 by 3 where it is not known (0).
 */
export function sheetToMark(
  ids: { sheetId: string; thingId: string },
  mediaId: string,
  size: { width: number; height: number },
): InkSheet {
  const [wide, high] = size.width > 0 && size.height > 0 ? [size.width, size.height] : [4, 3]
  // As large as a new sheet: a nib is as thick on it as on any other.
  const share = SHEET_SIZE.width / Math.max(wide, high)
  const [width, height] = [Math.round(wide * share), Math.round(high * share)]
  const picture: LaidPicture = {
    ...{ kind: 'picture', id: ids.thingId, mediaId, width, height, locked: true, fixed: true },
    ...{ at: { x: Math.round(width / 2), y: Math.round(height / 2) }, turn: 0 },
  }
  return { ...emptySheet(ids.sheetId), width, height, things: [picture] }
}

/** Whether anything was written on a copy yet. */
export const isMarked = ({ sheets }: InkDocument): boolean =>
  sheets.some(({ things }) => things.some(({ fixed }) => !fixed))
