import { DomainError } from '../domainError.ts'
import {
  compose,
  distance,
  fromUnitSquare,
  isConvex,
  pageAspect,
  type Projective,
  type Quad,
} from './projective.ts'
import type { Size, Tidying, Trim } from './tidying.ts'

/** Where each pixel of the tidied picture comes from. */
export type Plan = Size & {
  /**
   * From pixel places in the tidied picture (the middle of the first is 0.5, 0.5) to such places in
   * the original.
   */
  toOriginal: Projective
}

/**
 * Works out the size of the tidied picture and the one transform that makes it: however many steps
 * there are, every pixel is
 * sampled once.
 * @param original - In pixels, upright.
 * @param most - Most pixels along the longer side, for a preview; without it nothing is made
 *   smaller.
 * @throws DomainError `tidy/corners-cross` when the corners are no page
 */
export function planTidying(original: Size, tidying: Tidying, most = Infinity): Plan {
  const flat = planStraighten(original, tidying.corners)
  const turned = planTurn(flat, tidying.quarters, tidying.degrees)
  const trimmed = planTrim(turned, tidying.trim)
  const scale = Math.min(1, most / Math.max(trimmed.width, trimmed.height))
  const [width, height] = [
    Math.max(1, Math.round(trimmed.width * scale)),
    Math.max(1, Math.round(trimmed.height * scale)),
  ]
  const larger: Projective = [trimmed.width / width, 0, 0, 0, trimmed.height / height, 0, 0, 0, 1]
  const toOriginal = [trimmed, turned, flat].reduce(
    (inner, step) => compose(step.toBefore, inner),
    larger,
  )
  return { width, height, toOriginal }
}

type Step = Size & { toBefore: Projective }

/**
 * The page lies flat and has its own proportions; its longer sides keep their pixels, so that
 * nothing gets blurred.
 */
function planStraighten(original: Size, corners: Quad | null): Step {
  if (!corners) return { ...original, toBefore: scaling(1, 1) }
  const quad = corners.map(({ x, y }) => ({
    x: x * original.width,
    y: y * original.height,
  })) as unknown as Quad
  if (!isConvex(quad)) throw new DomainError('tidy/corners-cross')
  const [tl, tr, br, bl] = quad
  const aspect = pageAspect(quad, original)
  const across = Math.max(distance(tl, tr), distance(bl, br))
  const down = Math.max(distance(tl, bl), distance(tr, br))
  // Whichever side would be stretched decides, the other follows from the aspect.
  const width = Math.max(1, Math.round(Math.max(across, down * aspect)))
  const height = Math.max(1, Math.round(width / aspect))
  return { width, height, toBefore: compose(fromUnitSquare(quad), scaling(1 / width, 1 / height)) }
}

/**
 * Turned about its middle. What is left is the largest picture of the same proportions without
 * empty corners.
 */
function planTurn(before: Size, quarters: Tidying['quarters'], degrees: number): Step {
  const lying = quarters % 2 === 1
  const upright = lying ? { width: before.height, height: before.width } : before
  const angle = (degrees * Math.PI) / 180
  const [sin, cos] = [Math.abs(Math.sin(angle)), Math.cos(angle)]
  const share = Math.min(
    upright.width / (upright.width * cos + upright.height * sin),
    upright.height / (upright.width * sin + upright.height * cos),
  )
  const [width, height] = [
    Math.max(1, Math.round(upright.width * share)),
    Math.max(1, Math.round(upright.height * share)),
  ]
  const back = -angle - (quarters * Math.PI) / 2
  const [c, s] = [Math.cos(back), Math.sin(back)]
  const [mx, my] = [width / 2, height / 2]
  const toBefore: Projective = [
    c,
    -s,
    before.width / 2 - c * mx + s * my,
    s,
    c,
    before.height / 2 - s * mx - c * my,
    0,
    0,
    1,
  ]
  return { width, height, toBefore }
}

function planTrim(before: Size, { left, top, right, bottom }: Trim): Step {
  const width = Math.max(1, Math.round(before.width * (right - left)))
  const height = Math.max(1, Math.round(before.height * (bottom - top)))
  return {
    width,
    height,
    toBefore: [
      (before.width * (right - left)) / width,
      0,
      before.width * left,
      0,
      (before.height * (bottom - top)) / height,
      before.height * top,
      0,
      0,
      1,
    ],
  }
}

const scaling = (x: number, y: number): Projective => [x, 0, 0, 0, y, 0, 0, 0, 1]
