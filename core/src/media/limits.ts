/** A 48-megapixel phone photo at its best quality is about 25 MB; a scanned A3 page about 40 MB. */
export const MAX_UPLOAD_BYTES = 60 * 1024 * 1024
/** Decoding needs about 3 bytes a pixel; 120 megapixels stay under the memory one job may take. */
export const MAX_MEGAPIXELS = 120
/**
 * Interlaced and progressive pictures, WebP, GIF and HEIC are decoded with every pixel in memory;
 * two jobs at once stay under 500 MB.
 */
export const MAX_WHOLE_MEGAPIXELS = 36
/**
 * Longest edges of the sizes made of each picture: a preview in a list, a page on a tablet, a page
 * on a large screen.
 */
export const PICTURE_SIZES = [320, 960, 2048] as const
export type PictureSize = (typeof PICTURE_SIZES)[number]
/** What a file dialogue offers. */
export const PICTURE_ACCEPT =
  'image/jpeg,image/png,image/webp,image/gif,image/heic,image/heif,.heic,.heif'
