import type { Colour, FolderSymbol } from '@nibquill/core'
import { flag, id, integer, maybe, moment, refer, row, text } from '../platform/columns.ts'

export type StrandRow = { id: string; schoolId: string; name: string; position: number }
export const StrandRow = row<StrandRow>('strand', {
  id,
  schoolId: refer('school'),
  name: text,
  position: integer,
})

/**
 * A folder for some classes (`FolderClassRow`) or for the whole school, which then runs on from
 * year to year.
 * One with an owner is a pupil's own: proposed until a teacher agreed.
 */
export type FolderRow = {
  id: string
  schoolId: string
  wholeSchool: boolean
  ownerId: string | null
  agreedAt: Date | null
  strandId: string | null
  name: string
  symbol: FolderSymbol
  colour: Colour
  parentsSee: boolean
  pupilsFile: boolean
  position: number
  putAwayAt: Date | null
  version: number
}
export const FolderRow = row<FolderRow>(
  'folder',
  {
    id,
    schoolId: refer('school'),
    wholeSchool: flag,
    ownerId: maybe(refer('person')),
    agreedAt: maybe(moment),
    strandId: maybe(refer('strand')),
    name: text,
    symbol: text,
    colour: text,
    parentsSee: flag,
    pupilsFile: flag,
    position: integer,
    putAwayAt: maybe(moment),
    version: integer,
  },
  { indices: [{ columns: ['schoolId'] }] },
)

/** Where one of several makers keeps what they made together, instead of where it was approved into. */
export type KeptInRow = { personId: string; pieceId: string; folderId: string; keptAt: Date }
export const KeptInRow = row<KeptInRow>(
  'kept_in',
  {
    personId: refer('person', { key: true }),
    pieceId: refer('piece', { key: true, cascade: true }),
    folderId: refer('folder', { cascade: true }),
    keptAt: moment,
  },
  { indices: [{ columns: ['pieceId'] }, { columns: ['folderId'] }] },
)

export type FolderClassRow = { folderId: string; classId: string }
export const FolderClassRow = row<FolderClassRow>(
  'folder_class',
  {
    folderId: refer('folder', { key: true, cascade: true }),
    classId: refer('class', { key: true }),
  },
  { indices: [{ columns: ['classId'] }] },
)
