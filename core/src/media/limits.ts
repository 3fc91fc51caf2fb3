/** Decoding needs about 3 bytes a pixel; 120 megapixels stay under the memory one job may take. */
export const MAX_MEGAPIXELS = 120
/**
 * Interlaced and progressive pictures, WebP, GIF and HEIC are decoded with every pixel in memory;
 * two jobs at once stay under 500 MB.
 */
export const MAX_WHOLE_MEGAPIXELS = 36
