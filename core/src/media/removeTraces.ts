import type { Source, Stretch } from './bytes.ts'
import { cleanGif } from './cleanGif.ts'
import { cleanJpeg } from './cleanJpeg.ts'
import { cleanPng } from './cleanPng.ts'
import { cleanWebp } from './cleanWebp.ts'
import type { MEDIA } from './kinds.ts'

/** Pictures are kept as they are but for what they tell of place, time and device. */
export type PictureType = keyof (typeof MEDIA)['picture']['types']

const CLEAN = {
  'image/jpeg': cleanJpeg,
  'image/png': cleanPng,
  'image/webp': cleanWebp,
  'image/gif': cleanGif,
} as const satisfies Record<PictureType, unknown>

/**
 * Says what stays of a picture without position, time, device, maker notes, comments and trailing
 * data; nothing is coded anew: the pixels stay as they were. The file is read a little at a time.
 * @param type - As sniffed from the bytes, never as the name says.
 * @returns What stays, in order (one stretch from start to end where nothing goes), and the
 *   orientation (1 to 8, Exif) it still carries.
 * @throws DomainError `media/unreadable` for a file made to fill the memory
 */
export function removeTraces(
  source: Source,
  type: PictureType,
): { kept: Stretch[]; orientation: number } {
  return CLEAN[type](source)
}
