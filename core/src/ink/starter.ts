import { isPlaced, type InkDocument, type Thing } from './document.ts'

/**
 * What a teacher drew, and what they locked, stays, as spots do; what else they put down may be
 * moved and sorted.
 */
const asCopied = (thing: Thing): Thing =>
  isPlaced(thing) && !thing.locked && thing.kind !== 'spot' ? thing : { ...thing, fixed: true }

/** On a copy each sheet is known by the starter sheet it is of. @param mediaId - Of that. */
const sheetIdOf = (mediaId: string, at: number) => `${mediaId}-${at}`

/** A pupil's own copy of a starter sheet. */
export const copyOfStarter = (ink: InkDocument, mediaId: string): InkDocument => ({
  ...ink,
  sheets: ink.sheets.map((sheet, at) => ({
    ...sheet,
    id: sheetIdOf(mediaId, at),
    things: sheet.things.map(asCopied),
  })),
})

/** Whether a drawing holds a copy of just this starter sheet. */
export const isCopiedFrom = ({ sheets }: InkDocument, mediaId: string): boolean =>
  sheets.some(({ id }) => id.startsWith(`${mediaId}-`))

/** Whether there is something on a copy to be moved: then one begins with that. */
export const hasMovables = ({ sheets }: InkDocument): boolean =>
  sheets.some(({ things }) => things.some((thing) => isPlaced(thing) && !thing.fixed))
