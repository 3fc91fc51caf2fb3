import { PICTURE_SIZES } from '@nibquill/core'
import type { MediaRow } from './rows.ts'

const ENDING = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/gif': 'gif',
  'audio/webm': 'webm',
  'audio/ogg': 'ogg',
  'audio/mp4': 'm4a',
  'application/pdf': 'pdf',
} as const

type Stored = Pick<MediaRow, 'keptSha256' | 'type'>
export const fullKey = (media: Stored): string => `${media.keptSha256}.${ENDING[media.type]}`
export const sizeKey = (media: Pick<MediaRow, 'keptSha256'>, size: number): string =>
  `${media.keptSha256}-${size}.jpg`

/** Everything that is stored for a file, the file itself first. */
export const keysOf = (media: Stored): string[] => [
  fullKey(media),
  ...PICTURE_SIZES.map((size) => sizeKey(media, size)),
]
