import type { Grey } from './grey.ts'

/**
 * What is wrong with a photo, as far as a tablet can tell; nothing here stops anybody from using
 * it.
 */
export const PHOTO_FAULTS = ['black', 'blurred'] as const
export type PhotoFault = (typeof PHOTO_FAULTS)[number]

/**
 * Ninety-nine of a hundred pixels darker than this: a lens under a thumb, a pocket, a room without
 * light. A page in a dim
 * room still has paper far above it (common practice, no source; the thresholds were set on the
 * demo's drawings).
 */
const BLACK_BELOW = 34
const BLACK_SHARE = 0.99
/**
 * A photo's sharpest tenth of tiles have a variance of the Laplacian below this when nothing in it
 * has an edge.
 * Variance of the Laplacian as a focus measure: Pech-Pacheco et al., ICPR 2000, "Diatom
 * autofocusing in brightfield microscopy".
 */
const SHARP_FROM = 60
const TILES = 8

/**
 * Looks at a small grey copy of a photo (about 640 pixels wide).
 * Blur is judged by the sharpest tiles, since most of a table is smooth in a sharp photo too.
 * @returns the fault worth a word, or null
 */
export function photoFault(grey: Grey): PhotoFault | null {
  const dark = grey.data.reduce((count, value) => count + Number(value < BLACK_BELOW), 0)
  if (dark >= grey.data.length * BLACK_SHARE) return 'black'
  const sharpness = tileSharpness(grey).sort((a, b) => b - a)
  const best = sharpness.slice(0, Math.max(1, Math.ceil(sharpness.length / 10)))
  return best.reduce((sum, value) => sum + value, 0) / best.length < SHARP_FROM ? 'blurred' : null
}

/** Variance of the Laplacian in each of 8 x 8 tiles. */
function tileSharpness({ data, width, height }: Grey): number[] {
  const sums = Array.from({ length: TILES * TILES }, () => ({ sum: 0, squares: 0, count: 0 }))
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x
      const bend =
        4 * data[at]! - data[at - 1]! - data[at + 1]! - data[at - width]! - data[at + width]!
      const tile = sums[Math.floor((y * TILES) / height) * TILES + Math.floor((x * TILES) / width)]!
      tile.sum += bend
      tile.squares += bend * bend
      tile.count++
    }
  return sums.map(({ sum, squares, count }) =>
    count === 0 ? 0 : squares / count - (sum / count) ** 2,
  )
}
