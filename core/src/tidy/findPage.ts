import { meet, placeSides, type Line } from './placeSides.ts'
import { areaOf, distance, isConvex, type Point, type Quad } from './projective.ts'
import type { Rgba } from './resample.ts'

/** Where a page lies: corners as shares 0..1 of the picture's sides, and how sure that is, 0..1. */
export type FoundPage = { corners: Quad; sureness: number }

/** Sides are sought in a copy this long, and placed exactly in one this long. */
const SEEK_PX = 320
const PLACE_PX = 1280
/** Lines worth combining into four sides. */
const MOST_LINES = 26
/** Degrees and pixels a cell of the line count covers. */
const CELL_DEGREES = 2
const CELL_PX = 2
/** A page fills at least this share of the photo: whoever photographs it goes near. */
const LEAST_AREA = 0.1
/** Corners may lie a little outside the photo. */
const BEYOND = 0.08
/** Below this, saying nothing is better than showing a guess. */
const SURE_FROM = 0.04

/**
 * Finds the sheet of paper on a table by its four straight sides: light inside and darker outside,
 * or the other way round.
 *
 * Edges vote for lines with the direction their light comes from; four lines that face each other
 * make a page, and the page whose
 * sides are best seen, differ most from the table and enclose most wins. Its sides are then placed
 * again in a larger copy.
 * @returns null when nothing looks like a page
 * @see Duda and Hart 1972, "Use of the Hough transformation to detect lines and curves in pictures"
 * @see O'Gorman and Clowes 1976, "Finding picture edges through collinearity of feature points"
 *   (votes by gradient direction)
 */
export function findPage(picture: Rgba): FoundPage | null {
  const small = shrink(picture, SEEK_PX)
  const slopes = findSlopes(small)
  const best = findBestQuad(small, slopes)
  if (!best || best.score < SURE_FROM) return null
  const large = shrink(picture, PLACE_PX)
  const scale = { x: large.width / small.width, y: large.height / small.height }
  const rough = best.quad.map(({ x, y }) => ({ x: x * scale.x, y: y * scale.y })) as unknown as Quad
  const placed = placeSides(large, rough, best.lighter, Math.max(scale.x, scale.y) * 3)
  const corners = placed.map(({ x, y }) => ({
    x: x / large.width,
    y: y / large.height,
  })) as unknown as Quad
  return {
    corners: fromTopLeft(corners),
    sureness: Math.min(1, (best.score / areaOf(best.quad)) * small.width * small.height),
  }
}

/** A smaller copy, each pixel the mean of those it covers. */
export function shrink({ data, width, height }: Rgba, longest: number): Rgba {
  const scale = Math.min(1, longest / Math.max(width, height))
  if (scale === 1) return { data, width, height }
  const [wide, high] = [
    Math.max(1, Math.round(width * scale)),
    Math.max(1, Math.round(height * scale)),
  ]
  const sums = new Float32Array(wide * 3)
  const small = new Uint8ClampedArray(wide * high * 4)
  const columns = Uint16Array.from({ length: width }, (_, x) =>
    Math.min(wide - 1, Math.floor((x * wide) / width)),
  )
  const counts = new Uint32Array(wide)
  for (const column of columns) counts[column]!++
  for (let row = 0; row < high; row++) {
    const [from, to] = [
      Math.floor((row * height) / high),
      Math.max(1, Math.floor(((row + 1) * height) / high)),
    ]
    sums.fill(0)
    for (let y = from; y < to; y++)
      for (let x = 0, at = y * width * 4; x < width; x++, at += 4) {
        const sum = columns[x]! * 3
        sums[sum] = sums[sum]! + data[at]!
        sums[sum + 1] = sums[sum + 1]! + data[at + 1]!
        sums[sum + 2] = sums[sum + 2]! + data[at + 2]!
      }
    for (let x = 0; x < wide; x++) {
      const all = counts[x]! * (to - from)
      for (let channel = 0; channel < 3; channel++)
        small[(row * wide + x) * 4 + channel] = sums[x * 3 + channel]! / all
      small[(row * wide + x) * 4 + 3] = 255
    }
  }
  return { data: small, width: wide, height: high }
}

/**
 * At each pixel and for each channel how steeply it gets lighter, and whither; three numbers a
 * pixel.
 */
type Slopes = { x: Float32Array; y: Float32Array; width: number; height: number }

/** @see Scharr 2000: 3 x 3 derivative with little error in direction */
function findSlopes({ data, width, height }: Rgba): Slopes {
  const x = new Float32Array(width * height * 3)
  const y = new Float32Array(width * height * 3)
  const [row, step] = [width * 4, 4]
  for (let py = 1; py < height - 1; py++)
    for (let px = 1; px < width - 1; px++)
      for (let channel = 0; channel < 3; channel++) {
        const i = (py * width + px) * 4 + channel
        const nw = data[i - row - step]!,
          n = data[i - row]!,
          ne = data[i - row + step]!,
          w = data[i - step]!
        const e = data[i + step]!,
          sw = data[i + row - step]!,
          s = data[i + row]!,
          se = data[i + row + step]!
        const to = (py * width + px) * 3 + channel
        x[to] = (3 * (ne - nw + se - sw) + 10 * (e - w)) / 32
        y[to] = (3 * (sw - nw + se - ne) + 10 * (s - n)) / 32
      }
  return { x, y, width, height }
}

/** The channel that shows an edge best, for each pixel; and its strength. */
function strongestChannels({ x, y, width, height }: Slopes): {
  channels: Uint8Array
  strengths: Float32Array
} {
  const channels = new Uint8Array(width * height)
  const strengths = new Float32Array(width * height)
  for (let i = 0; i < strengths.length; i++)
    for (let channel = 0; channel < 3; channel++) {
      const strength = Math.hypot(x[i * 3 + channel]!, y[i * 3 + channel]!)
      if (strength <= strengths[i]!) continue
      strengths[i] = strength
      channels[i] = channel
    }
  return { channels, strengths }
}

function findLines(slopes: Slopes): Line[] {
  const { x, y, width, height } = slopes
  const { channels, strengths } = strongestChannels(slopes)
  const seen = strengths.filter((strength) => strength > 0).sort()
  // Half of a photo is smooth; an edge stands out of its noise.
  const least = Math.max(5, 2.2 * (seen[seen.length >> 1] ?? 0))
  const directions = 360 / CELL_DEGREES
  const reach = Math.ceil(Math.hypot(width, height) / CELL_PX)
  const across = 2 * reach + 1
  const votes = new Float32Array(directions * across)
  const vote = (px: number, py: number, gx: number, gy: number, weight: number) => {
    const angle = (Math.atan2(gy, gx) * 180) / Math.PI + 360
    for (let off = -2; off <= 2; off++) {
      const direction = Math.round(angle / CELL_DEGREES + off + directions) % directions
      const theta = (direction * CELL_DEGREES * Math.PI) / 180
      const rho = (px * Math.cos(theta) + py * Math.sin(theta)) / CELL_PX + reach
      const cell = Math.floor(rho)
      const share = rho - cell
      const at = direction * across + cell
      votes[at] = votes[at]! + weight * (1 - share)
      votes[at + 1] = votes[at + 1]! + weight * share
    }
  }
  for (let py = 1; py < height - 1; py++)
    for (let px = 1; px < width - 1; px++) {
      const i = py * width + px
      const strength = strengths[i]!
      if (strength < least) continue
      const best = i * 3 + channels[i]!
      const [gx, gy] = [x[best]!, y[best]!]
      if (!isCrest(strengths, gx, gy, width, i)) continue
      // A weak long side counts as much as a strong short one.
      const weight = Math.min(1, strength / (3 * least)) ** 0.5
      vote(px, py, gx, gy, weight)
      // Blue paint on brown wood: lighter in one channel, darker in another.
      for (let j = i * 3; j < i * 3 + 3; j++) {
        const against = -(x[j]! * gx + y[j]! * gy) / strength
        if (against < Math.max(least, 0.4 * strength)) continue
        vote(px, py, x[j]!, y[j]!, weight)
        break
      }
    }
  return strongestLines(votes, directions, across, reach, 0.08 * Math.min(width, height))
}

/** Not outdone by its neighbours across the edge. */
function isCrest(
  strengths: Float32Array,
  gx: number,
  gy: number,
  width: number,
  i: number,
): boolean {
  const step = Math.abs(gx) > Math.abs(gy) ? 1 : width
  return strengths[i]! >= strengths[i - step]! && strengths[i]! > strengths[i + step]!
}

function strongestLines(
  votes: Float32Array,
  directions: number,
  across: number,
  reach: number,
  least: number,
): Line[] {
  const lines: Line[] = []
  const cells = votes.slice()
  while (lines.length < MOST_LINES) {
    let best = 0
    for (let i = 1; i < cells.length; i++) if (cells[i]! > cells[best]!) best = i
    const most = cells[best]!
    if (most < least) break
    const [direction, cell] = [Math.floor(best / across), best % across]
    const theta = (direction * CELL_DEGREES * Math.PI) / 180
    lines.push({
      nx: Math.cos(theta),
      ny: Math.sin(theta),
      rho: (cell - reach) * CELL_PX,
      votes: most,
    })
    // Its own flanks are no other lines.
    for (let dd = -3; dd <= 3; dd++)
      for (let dc = -3; dc <= 3; dc++) {
        const place =
          ((direction + dd + directions) % directions) * across +
          Math.min(across - 1, Math.max(0, cell + dc))
        cells[place] = 0
      }
  }
  return lines
}

type Candidate = { quad: Quad; lighter: boolean; score: number }

function findBestQuad(small: Rgba, slopes: Slopes): Candidate | null {
  const found = findLines(slopes)
  let best: Candidate | null = null
  for (const lighter of [true, false]) {
    const inward = lighter
      ? found
      : found.map((line) => ({ ...line, nx: -line.nx, ny: -line.ny, rho: -line.rho }))
    for (const sides of facingSides([...inward, ...bordersOf(small)])) {
      const quad = quadOf(sides, small)
      if (!quad) continue
      const evidence = gatherEvidence(quad, lighter, small, slopes)
      if (!evidence) continue
      const score = scoreOf(evidence) * (lighter ? 1 : 0.9)
      if (!best || score > best.score) best = { quad, lighter, score }
    }
  }
  return best
}

/** A page may run out of the photo: then the photo's own border stands for that side. */
const bordersOf = ({ width, height }: Rgba): Line[] => [
  { nx: 1, ny: 0, rho: 0.5, votes: 0 },
  { nx: -1, ny: 0, rho: -(width - 1.5), votes: 0 },
  { nx: 0, ny: 1, rho: 0.5, votes: 0 },
  { nx: 0, ny: -1, rho: -(height - 1.5), votes: 0 },
]

/**
 * Degrees between the directions of neighbouring sides: a page seen from wherever a child can
 * stand.
 */
const LEAST_TURN = 45
const MOST_TURN = 135

/**
 * All fours of lines whose light sides face each other, clockwise; at most one of them is the
 * photo's border.
 */
function* facingSides(lines: readonly Line[]): Generator<readonly [Line, Line, Line, Line]> {
  const round = lines
    .map((line) => ({ line, angle: (Math.atan2(line.ny, line.nx) * 180) / Math.PI + 180 }))
    .sort((a, b) => a.angle - b.angle)
  const fits = (from: number, to: number) => to - from >= LEAST_TURN && to - from <= MOST_TURN
  const isBorder = ({ line }: { line: Line }) => Number(line.votes === 0)
  for (let i = 0; i < round.length; i++)
    for (let j = i + 1; j < round.length; j++) {
      if (!fits(round[i]!.angle, round[j]!.angle)) continue
      for (let k = j + 1; k < round.length; k++) {
        if (!fits(round[j]!.angle, round[k]!.angle)) continue
        for (let l = k + 1; l < round.length; l++) {
          if (
            !fits(round[k]!.angle, round[l]!.angle) ||
            !fits(round[l]!.angle, round[i]!.angle + 360)
          )
            continue
          const four = [round[i]!, round[j]!, round[k]!, round[l]!]
          if (four.reduce((sum, side) => sum + isBorder(side), 0) > 1) continue
          yield [four[0]!.line, four[1]!.line, four[2]!.line, four[3]!.line]
        }
      }
    }
}

function quadOf(
  [a, b, c, d]: readonly [Line, Line, Line, Line],
  { width, height }: Rgba,
): Quad | null {
  const quad: Quad = [meet(d, a), meet(a, b), meet(b, c), meet(c, d)]
  const inside = quad.every(
    ({ x, y }) =>
      x > -BEYOND * width &&
      x < (1 + BEYOND) * width &&
      y > -BEYOND * height &&
      y < (1 + BEYOND) * height,
  )
  return inside && isConvex(quad) && areaOf(quad) >= LEAST_AREA * width * height ? quad : null
}

const SAMPLES = 48
/** How far from a side inside and outside are compared, in pixels of the small copy. */
const BESIDE_PX = 4

/** What speaks for four sides being those of a page. */
type Evidence = {
  /** For each side, the share along which an edge is seen; null where it is the photo's border. */
  seen: (number | null)[]
  /**
   * How much inside and outside differ in colour: the second weakest side, since one may lie on
   * something of its own colour.
   */
  difference: number
  /** How much the colour just inside differs from side to side. */
  uneven: number
  /** How much of the sides is seen to run on past the corners, where a page's would end. */
  runsOn: number
  /** Share of the photo enclosed. */
  area: number
}

function gatherEvidence(
  quad: Quad,
  lighter: boolean,
  small: Rgba,
  slopes: Slopes,
): Evidence | null {
  const seen: (number | null)[] = []
  const differences: number[] = []
  const insides: number[][] = []
  const past: number[] = []
  for (let i = 0; i < 4; i++) {
    const [from, to] = [quad[i]!, quad[(i + 1) % 4]!]
    const side = lookAlong(from, to, lighter, small, slopes)
    seen.push(side?.seen ?? null)
    if (!side) continue
    if (side.seen < LEAST_SEEN) return null
    differences.push(side.difference)
    insides.push(side.inside)
    const [dx, dy] = [(to.x - from.x) * PAST_SHARE, (to.y - from.y) * PAST_SHARE]
    const skip = PAST_SKIP_PX / distance(from, to)
    const [sx, sy] = [(to.x - from.x) * skip, (to.y - from.y) * skip]
    past.push(
      seenBetween(
        { x: to.x + sx, y: to.y + sy },
        { x: to.x + sx + dx, y: to.y + sy + dy },
        lighter,
        slopes,
      ),
    )
    past.push(
      seenBetween(
        { x: from.x - sx - dx, y: from.y - sy - dy },
        { x: from.x - sx, y: from.y - sy },
        lighter,
        slopes,
      ),
    )
  }
  differences.sort((a, b) => a - b)
  return {
    seen,
    difference: differences[Math.min(1, differences.length - 1)] ?? 0,
    uneven: spreadOf(insides),
    runsOn: past.reduce((sum, share) => sum + share, 0) / Math.max(1, past.length),
    area: areaOf(quad) / (small.width * small.height),
  }
}
const LEAST_SEEN = 0.12
const PAST_SHARE = 0.15
const PAST_SKIP_PX = 3

/**
 * How much four sides look like a page's. Every side counts in full, and size too, so that the page
 * wins over a frame drawn on it.
 * The weights were chosen on a hundred rendered photos and are scored on others.
 */
const scoreOf = ({ seen, difference, uneven, runsOn, area }: Evidence): number =>
  seen.reduce<number>((product, share) => product * (share ?? BORDER_SEEN), 1) *
  (difference / (difference + 6)) *
  (1 / (1 + uneven / 150)) *
  (1 - 0.5 * runsOn) *
  area
/** A side that is the photo's border shows nothing for or against. */
const BORDER_SEEN = 0.3

function spreadOf(colours: number[][]): number {
  const mean = [0, 1, 2].map(
    (channel) => colours.reduce((sum, colour) => sum + colour[channel]!, 0) / colours.length,
  )
  return (
    colours.reduce(
      (sum, colour) => sum + Math.hypot(...colour.map((value, i) => value - mean[i]!)),
      0,
    ) / colours.length
  )
}

/** How clearly the picture gets lighter (or darker) across a way at one place, 0..1. */
function seenAt(
  x: number,
  y: number,
  nx: number,
  ny: number,
  lighter: boolean,
  slopes: Slopes,
): number {
  const sign = lighter ? 1 : -1
  let most = 0
  for (let off = -2; off <= 2; off++) {
    const at = (Math.round(y + ny * off) * slopes.width + Math.round(x + nx * off)) * 3
    for (let j = at; j < at + 3; j++)
      most = Math.max(most, sign * ((slopes.x[j] ?? 0) * nx + (slopes.y[j] ?? 0) * ny))
  }
  return Math.min(1, most / SEEN_SLOPE)
}

const within = (x: number, y: number, width: number, height: number): boolean =>
  x >= 2 && y >= 2 && x <= width - 3 && y <= height - 3

/**
 * The share of a way along which an edge is seen; what lies outside the photo counts as not seen.
 */
function seenBetween(from: Point, to: Point, lighter: boolean, slopes: Slopes): number {
  const length = distance(from, to)
  const [nx, ny] = [-(to.y - from.y) / length, (to.x - from.x) / length]
  let seen = 0
  const samples = 8
  for (let i = 0; i < samples; i++) {
    const [x, y] = [
      from.x + ((to.x - from.x) * (i + 0.5)) / samples,
      from.y + ((to.y - from.y) * (i + 0.5)) / samples,
    ]
    if (within(x, y, slopes.width, slopes.height))
      seen += seenAt(x, y, nx, ny, lighter, slopes) / samples
  }
  return seen
}

function lookAlong(
  from: Point,
  to: Point,
  lighter: boolean,
  { data, width, height }: Rgba,
  slopes: Slopes,
): { seen: number; difference: number; inside: number[] } | null {
  const length = distance(from, to)
  // Clockwise on a screen, the inside lies to the right of the way.
  const [nx, ny] = [-(to.y - from.y) / length, (to.x - from.x) / length]
  let [seen, all, beside] = [0, 0, 0]
  const inside = [0, 0, 0]
  const outside = [0, 0, 0]
  for (let i = 0; i < SAMPLES; i++) {
    const share = (i + 0.5) / SAMPLES
    const [x, y] = [from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share]
    if (!within(x, y, width, height)) continue
    all++
    seen += seenAt(x, y, nx, ny, lighter, slopes)
    const [ix, iy] = [Math.round(x + nx * BESIDE_PX), Math.round(y + ny * BESIDE_PX)]
    const [ox, oy] = [Math.round(x - nx * BESIDE_PX), Math.round(y - ny * BESIDE_PX)]
    if (Math.min(ix, iy, ox, oy) < 0 || Math.max(ix, ox) >= width || Math.max(iy, oy) >= height)
      continue
    beside++
    for (let channel = 0; channel < 3; channel++) {
      inside[channel]! += data[(iy * width + ix) * 4 + channel]!
      outside[channel]! += data[(oy * width + ox) * 4 + channel]!
    }
  }
  if (all < SAMPLES / 3 || beside < SAMPLES / 4) return null
  return {
    seen: seen / all,
    difference: Math.hypot(...inside.map((value, i) => (value - outside[i]!) / beside)),
    inside: inside.map((value) => value / beside),
  }
}
/** Grey levels a pixel at which an edge counts as fully seen. */
const SEEN_SLOPE = 9

/** Clockwise from the corner nearest the picture's own top left. */
function fromTopLeft(quad: Quad): Quad {
  const first = quad.reduce(
    (best, { x, y }, i) => (x + y < quad[best]!.x + quad[best]!.y ? i : best),
    0,
  )
  return [quad[first]!, quad[(first + 1) % 4]!, quad[(first + 2) % 4]!, quad[(first + 3) % 4]!]
}
