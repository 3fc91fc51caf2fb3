import { Clipper64, ClipType, FillRule, type Paths64 } from 'clipper2-ts'
import type { At } from './document.ts'
import { isInside } from './inside.ts'
import type { Rubbed } from './rubOut.ts'

type Ring = readonly At[]

/** Corners of each round end: what is cut is nowhere more than a hundredth of the radius too small. */
const END_CORNERS = 14
/** What is left of a patch and smaller than a dot, in square units, goes as well. */
const LEAST_AREA = 900

/** What a rubber went over, as a ring. */
function capsuleOf({ from, to, radius }: Rubbed): Ring {
  const turn = Math.atan2(to.y - from.y, to.x - from.x)
  const end = (middle: At, begin: number): Ring =>
    Array.from({ length: END_CORNERS + 1 }, (_, i) => {
      const at = begin + (Math.PI * i) / END_CORNERS
      return {
        x: Math.round(middle.x + radius * Math.cos(at)),
        y: Math.round(middle.y + radius * Math.sin(at)),
      }
    })
  return [...end(to, turn - Math.PI / 2), ...end(from, turn + Math.PI / 2)]
}

/** Twice the area, with a sign for which way the ring goes round. */
const doubleArea = (ring: Ring): number =>
  ring.reduce((sum, { x, y }, i) => {
    const next = ring[(i + 1) % ring.length]!
    return sum + x * next.y - next.x * y
  }, 0)
const areaOf = (rings: readonly Ring[]): number =>
  rings.reduce((sum, ring) => sum + doubleArea(ring) / 2, 0)

function clip(type: ClipType, rings: readonly Ring[], others: readonly Ring[]): Ring[] {
  const clipper = new Clipper64()
  clipper.addSubject(rings.map((ring) => ring.map((at) => ({ ...at, z: 0 }))))
  clipper.addClip(others.map((ring) => ring.map((at) => ({ ...at, z: 0 }))))
  const found: Paths64 = []
  clipper.execute(type, FillRule.NonZero, found)
  return found.map((ring) => ring.map(({ x, y }) => ({ x, y })))
}

/**
 * Cuts what a rubber went over out of a filled patch.
 * @param rings - Its outline and the holes in it, in whole units, filled where they wind.
 * @returns what is left, each piece its outline first and then its holes, which go round the other
 *   way; null where nothing was touched, none where all is gone
 */
export function rubPatch(rings: readonly Ring[], rubbed: Rubbed): Ring[][] | null {
  const capsule = capsuleOf(rubbed)
  if (Math.abs(areaOf(clip(ClipType.Intersection, rings, [capsule]))) < 1) return null
  const left = clip(ClipType.Difference, rings, [capsule])
  const outlines = left.filter((ring) => doubleArea(ring) > 2 * LEAST_AREA)
  const holes = left.filter((ring) => doubleArea(ring) < 0)
  return outlines.map((outline) => [
    outline,
    ...holes.filter((hole) => innermost(outlines, hole[0]!) === outline),
  ])
}

/** Of the outlines round a place the smallest, which is the one it is a hole in. */
function innermost(outlines: readonly Ring[], at: At): Ring | undefined {
  return outlines
    .filter(
      (outline) => isInside(outline, at) || outline.some(({ x, y }) => x === at.x && y === at.y),
    )
    .sort((a, b) => doubleArea(a) - doubleArea(b))[0]
}
