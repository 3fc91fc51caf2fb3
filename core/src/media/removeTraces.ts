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
 * Removes position, time, device, maker notes, comments and trailing data from a picture without
 * coding it anew:
 * the pixels stay as they were.
 * @param type - As sniffed from the bytes, never as the name says.
 * @returns The clean file and the orientation (1 to 8, Exif) it still carries.
 */
export function removeTraces(
  bytes: Uint8Array,
  type: PictureType,
): { bytes: Uint8Array; orientation: number } {
  return CLEAN[type](bytes)
}
