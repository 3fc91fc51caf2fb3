import type { PartKind } from '@nibquill/core'
import type { MediaRow } from '../media/rows.ts'

/** What each kind of part demands of the file it hangs on. */
export const PART_NEEDS: Record<PartKind, (media: MediaRow) => boolean> = {
  photo: ({ type }) => type.startsWith('image/'),
}
