/** A place in a picture; what it is measured in is said where it is used. */
export type Point = { x: number; y: number }
/**
 * Four corners in the order top left, top right, bottom right, bottom left of what they enclose.
 */
export type Quad = [Point, Point, Point, Point]
/** A plane projective transform, row by row; the last entry is not always 1. */
export type Projective = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
]

/** Where a transform takes a point. */
export function project([a, b, c, d, e, f, g, h, i]: Projective, { x, y }: Point): Point {
  const w = g * x + h * y + i
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w }
}

/** First `first`, then `then`. */
export function compose(then: Projective, first: Projective): Projective {
  const cell = (row: number, column: number) =>
    then[row * 3]! * first[column]! +
    then[row * 3 + 1]! * first[3 + column]! +
    then[row * 3 + 2]! * first[6 + column]!
  return [
    cell(0, 0),
    cell(0, 1),
    cell(0, 2),
    cell(1, 0),
    cell(1, 1),
    cell(1, 2),
    cell(2, 0),
    cell(2, 1),
    cell(2, 2),
  ]
}

/** The way back, by the adjugate: scale does not matter to a projective transform. */
export function invert([a, b, c, d, e, f, g, h, i]: Projective): Projective {
  return [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ]
}

/**
 * The transform that takes the unit square (0,0) (1,0) (1,1) (0,1) to four corners.
 * @see Heckbert 1989, "Fundamentals of Texture Mapping and Image Warping", section 2.2.3 (unit
 *   square to quadrilateral)
 */
export function fromUnitSquare([p0, p1, p2, p3]: Quad): Projective {
  const [dx1, dy1] = [p1.x - p2.x, p1.y - p2.y]
  const [dx2, dy2] = [p3.x - p2.x, p3.y - p2.y]
  const [sx, sy] = [p0.x - p1.x + p2.x - p3.x, p0.y - p1.y + p2.y - p3.y]
  const area = dx1 * dy2 - dx2 * dy1
  const g = (sx * dy2 - dx2 * sy) / area
  const h = (dx1 * sy - sx * dy1) / area
  return [
    p1.x - p0.x + g * p1.x,
    p3.x - p0.x + h * p3.x,
    p0.x,
    p1.y - p0.y + g * p1.y,
    p3.y - p0.y + h * p3.y,
    p0.y,
    g,
    h,
    1,
  ]
}

/** Twice the signed area under the walk a, b, c: positive when it turns clockwise on a screen. */
const turn = (a: Point, b: Point, c: Point): number =>
  (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)

/** Whether the corners go round clockwise without a dent: only then is there a page to flatten. */
export const isConvex = (quad: Quad): boolean =>
  quad.every((corner, i) => turn(corner, quad[(i + 1) % 4]!, quad[(i + 2) % 4]!) > 0)

/** The area enclosed, in the square of what the corners are measured in. */
export const areaOf = (quad: Quad): number =>
  Math.abs(
    quad.reduce((sum, { x, y }, i) => sum + x * quad[(i + 1) % 4]!.y - quad[(i + 1) % 4]!.x * y, 0),
  ) / 2

export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y)

/**
 * Width over height of the flat page whose picture has these corners, from how its sides run
 * together.
 * The camera's focal length comes out on the way; where it cannot (the page lies almost flat to the
 * camera) a usual one is taken,
 * and where corners were dragged into a shape no page has, the mean lengths of opposite sides
 * decide.
 * @param quad - In pixels.
 * @param size - Of the whole picture in pixels: its middle is taken for the point the camera looked
 *   at.
 * @see Zhang and He 2007, "Whiteboard scanning and image enhancement", Digital Signal Processing
 *   17, equations 11, 20 and 21
 */
export function pageAspect(quad: Quad, size: { width: number; height: number }): number {
  const [tl, tr, br, bl] = quad.map(({ x, y }) => ({
    x: x - size.width / 2,
    y: y - size.height / 2,
  })) as unknown as Quad
  const plain = (distance(tl, tr) + distance(bl, br)) / (distance(tl, bl) + distance(tr, br))
  // m1 is the top left corner, m2 the top right, m3 the bottom left, m4 the bottom right.
  const k2 = dot(cross(tl, br), bl) / dot(cross(tr, br), bl)
  const k3 = dot(cross(tl, br), tr) / dot(cross(bl, br), tr)
  const n2 = { x: k2 * tr.x - tl.x, y: k2 * tr.y - tl.y, z: k2 - 1 }
  const n3 = { x: k3 * bl.x - tl.x, y: k3 * bl.y - tl.y, z: k3 - 1 }
  const found = -(n2.x * n3.x + n2.y * n3.y) / (n2.z * n3.z)
  const side = Math.max(size.width, size.height)
  const runTogether = Math.min(Math.abs(n2.z), Math.abs(n3.z)) > LEAST_RUNNING
  const plausible =
    runTogether && found > (LEAST_FOCAL * side) ** 2 && found < (MOST_FOCAL * side) ** 2
  const focal2 = plausible ? found : (USUAL_FOCAL * side) ** 2
  const length2 = ({ x, y, z }: typeof n2) => (x * x + y * y) / focal2 + z * z
  const aspect = Math.sqrt(length2(n2) / length2(n3))
  return aspect > plain / 2 && aspect < plain * 2 ? aspect : plain
}

/**
 * Focal lengths of tablets and phones against the picture's longer side (common practice, no
 * source): 26 mm on 36 mm is 0.72.
 */
const USUAL_FOCAL = 0.8
/**
 * Sides that run together less than this are told from parallel ones by a pixel or two: nothing
 * follows from them.
 */
const LEAST_RUNNING = 0.02
const LEAST_FOCAL = 0.5
const MOST_FOCAL = 2.5

/** Of points in the plane at height one. */
const cross = (a: Point, b: Point) => ({ x: a.y - b.y, y: b.x - a.x, z: a.x * b.y - a.y * b.x })
const dot = (a: { x: number; y: number; z: number }, b: Point): number =>
  a.x * b.x + a.y * b.y + a.z
