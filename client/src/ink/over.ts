import type { PhotoPart } from '@nibquill/contract'
import type { InkChange } from '@nibquill/core/ink/changes'
import { newInk, SHEET_SIZE, type InkDocument, type InkSheet } from '@nibquill/core/ink/document'
import { v7 as newId } from 'uuid'

/** A sheet that lies as the photo does: upright for an upright one. */
export function inkOver({ width, height }: PhotoPart): InkDocument {
  const [first] = newInk(newId()).sheets
  const sheet =
    height > width ? { ...first!, width: SHEET_SIZE.height, height: SHEET_SIZE.width } : first!
  return { ...newInk(sheet.id), sheets: [sheet] }
}

/** The photo whole, in the middle, and held there: what moves is what is drawn and put on it. */
export function layUnder(photo: PhotoPart, sheet: InkSheet): InkChange[] {
  const [wide, high] = photo.width > 0 ? [photo.width, photo.height] : [4, 3]
  const share = Math.min(sheet.width / wide, sheet.height / high)
  return [
    {
      ...{ kind: 'put', sheetId: sheet.id, below: null },
      things: [
        {
          ...{ kind: 'picture', id: newId(), mediaId: photo.files.picture.mediaId },
          ...{ width: Math.round(wide * share), height: Math.round(high * share) },
          ...{ at: { x: sheet.width / 2, y: sheet.height / 2 }, turn: 0, locked: true },
        },
      ],
    },
  ]
}
