import { isPlaced, type InkDocument, type Thing } from './document.ts'

/** What a teacher drew, and what they locked, stays; what they left unlocked may be moved and sorted. */
const asCopied = (thing: Thing): Thing =>
  isPlaced(thing) && !thing.locked ? thing : { ...thing, fixed: true }

/** A pupil's own copy of a starter sheet. */
export const copyOfStarter = (ink: InkDocument): InkDocument => ({
  ...ink,
  sheets: ink.sheets.map((sheet) => ({ ...sheet, things: sheet.things.map(asCopied) })),
})

/** Whether there is something on a copy to be moved: then one begins with that. */
export const hasMovables = ({ sheets }: InkDocument): boolean =>
  sheets.some(({ things }) => things.some((thing) => isPlaced(thing) && !thing.fixed))
