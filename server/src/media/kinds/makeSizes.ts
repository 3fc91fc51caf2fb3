import { MAX_MEGAPIXELS, PICTURE_SIZES } from '@nibquill/core'
import sharp from 'sharp'
import type { MadeForm } from './kinds.ts'

// Two jobs run at once on two cores; a thread pool each would only get in each other's way.
sharp.concurrency(1)
sharp.cache(false)

const JPEG = { quality: 80 } as const
const LARGEST = Math.max(...PICTURE_SIZES)

/**
 * Makes the upright sizes of a picture, largest first: it is decoded once, the smaller ones come
 * from the largest.
 * Never enlarges; see-through becomes white paper. Nothing but pixels is carried over.
 * @param source - File path or bytes.
 * @returns One JPEG a size, in the order of `PICTURE_SIZES`.
 */
export async function makeSizes(source: string | Uint8Array): Promise<MadeForm[]> {
  const { data, info } = await sharp(source, {
    failOn: 'none',
    limitInputPixels: MAX_MEGAPIXELS * 1_000_000,
    sequentialRead: true,
  })
    .autoOrient()
    .resize({ width: LARGEST, height: LARGEST, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true })
  const raw = { width: info.width, height: info.height, channels: info.channels } as const
  const sizes: MadeForm[] = []
  for (const size of PICTURE_SIZES) {
    const made = await sharp(data, { raw })
      .resize({ width: size, height: size, fit: 'inside', withoutEnlargement: true })
      .jpeg(JPEG)
      .toBuffer({ resolveWithObject: true })
    sizes.push({
      form: `${size}`,
      bytes: made.data,
      type: 'image/jpeg',
      ending: 'jpg',
      width: made.info.width,
      height: made.info.height,
      durationMs: null,
    })
  }
  return sizes
}
