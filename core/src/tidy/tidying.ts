import type { Quad } from './projective.ts'

export const BRIGHTEN_WAYS = ['page', 'scene'] as const
/** `page`: dark on light paper, evened out. `scene`: a thing or a room, only lifted gently. */
export type BrightenWay = (typeof BRIGHTEN_WAYS)[number]

/**
 * What was done to tidy a photo, as a recipe: the original stays, and any step can be taken back or
 * changed later.
 * Done in this order: straighten, turn, trim, brighten.
 */
export type Tidying = {
  /**
   * The page's corners as shares 0..1 of the original's width and height; null leaves the picture
   * as it was taken.
   */
  corners: Quad | null
  /** Quarter turns clockwise. */
  quarters: 0 | 1 | 2 | 3
  /**
   * Degrees clockwise beside the quarters, -`MOST_DEGREES`..`MOST_DEGREES`; the corners this leaves
   * empty are cut off.
   */
  degrees: number
  /** What stays, as shares 0..1 of the picture as it stands after turning. */
  trim: Trim
  brighten: { way: BrightenWay; strength: number } | null
}
export type Trim = { left: number; top: number; right: number; bottom: number }

export const MOST_DEGREES = 15
/** A trim keeps at least this share each way: less is a slip of the finger. */
export const LEAST_TRIM = 0.05
export const ALL: Trim = { left: 0, top: 0, right: 1, bottom: 1 }
export const AS_IT_WAS: Tidying = {
  corners: null,
  quarters: 0,
  degrees: 0,
  trim: ALL,
  brighten: null,
}

export type Size = { width: number; height: number }

/** Whether a recipe changes nothing. */
export const isAsItWas = ({ corners, quarters, degrees, trim, brighten }: Tidying): boolean =>
  corners === null &&
  quarters === 0 &&
  degrees === 0 &&
  isAll(trim) &&
  (brighten?.strength ?? 0) === 0

const isAll = ({ left, top, right, bottom }: Trim): boolean =>
  left === 0 && top === 0 && right === 1 && bottom === 1

/** A quarter turn more, clockwise; the trimmed rectangle turns with the picture. */
export function turnQuarter(tidying: Tidying): Tidying {
  const { left, top, right, bottom } = tidying.trim
  return {
    ...tidying,
    quarters: ((tidying.quarters + 1) % 4) as Tidying['quarters'],
    trim: { left: 1 - bottom, top: left, right: 1 - top, bottom: right },
  }
}
