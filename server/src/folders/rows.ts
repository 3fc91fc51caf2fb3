import type { Colour, FolderSymbol } from '@nibquill/core'
import { flag, id, integer, maybe, moment, refer, row, text } from '../platform/columns.ts'

export type StrandRow = { id: string; schoolId: string; name: string; position: number }
export const StrandRow = row<StrandRow>('strand', { id, schoolId: refer('school'), name: text, position: integer })

/** `classId` null: a folder of the whole school, which runs on from year to year. */
export type FolderRow = {
  id: string
  schoolId: string
  classId: string | null
  strandId: string | null
  name: string
  symbol: FolderSymbol
  colour: Colour
  parentsSee: boolean
  pupilsFile: boolean
  position: number
  putAwayAt: Date | null
}
export const FolderRow = row<FolderRow>(
  'folder',
  {
    id, schoolId: refer('school'), classId: maybe(refer('class')), strandId: maybe(refer('strand')), name: text, symbol: text,
    colour: text, parentsSee: flag, pupilsFile: flag, position: integer, putAwayAt: maybe(moment),
  }, // prettier-ignore
  { indices: [{ columns: ['schoolId'] }] },
)
