import type { Rgba } from './resample.ts'
import type { BrightenWay } from './tidying.ts'

/**
 * Light is looked at in tiles, this many along the longer side: finer than any shadow's edge needs,
 * coarser than a drawing's lines.
 */
const TILES = 40
/** Paper is the lightest of a tile but for specks: this share of its pixels is darker. */
const PAPER_SHARE = 0.85
/**
 * A drawing covers at most this many tiles in a row without paper in between; larger dark areas are
 * taken for shade.
 */
const REACH = 4
/** No light is lifted further than this: beyond, there is only noise to see. */
const MOST_GAIN = 4
/**
 * Where the paper lands at full strength: almost white, so that pencil at its edges still shows.
 */
const PAPER_WHITE = 250

/** The light on a picture: for each channel, a small grid of what white paper would show there. */
type Light = { across: number; down: number; channels: [Float32Array, Float32Array, Float32Array] }

/**
 * What brightening does to any pixel of a picture, worked out from the picture or a smaller copy of
 * it.
 * Carried to the full size, a preview and the full picture are brightened alike.
 */
export type Brightening = {
  way: BrightenWay
  strength: number
  light: Light | null
  curve: Uint8ClampedArray
}

/**
 * Looks at a picture and plans its brightening.
 *
 * `page`: light is estimated tile by tile as the paper's own brightness, tiles the drawing covers
 * are filled in from around them,
 * and every pixel is divided by it; then black and white points are set.
 * `scene`: white and black points at the outermost half percents, and middle tones are lifted when
 * they lie low.
 * @param strength - 0 nothing to 1 full
 * @see Gonzalez and Woods, "Digital Image Processing", shading correction by division and
 *   grey-scale morphology
 */
export function planBrighten(picture: Rgba, way: BrightenWay, strength: number): Brightening {
  if (way === 'scene')
    return { way, strength, light: null, curve: sceneCurve(lumaHistogram(picture)) }
  const light = findLight(picture)
  const even = lumaHistogram(picture, light)
  return { way, strength, light, curve: pageCurve(even) }
}

/**
 * Brightens a picture in place.
 * @param rows - Which rows of a larger picture these are: `picture` holds `height` rows from
 *   `from`, of `of` altogether.
 */
export function brighten(
  picture: Rgba,
  plan: Brightening,
  rows = { from: 0, of: picture.height },
): void {
  if (plan.strength <= 0) return
  if (plan.light) evenOut(picture, plan.light, plan.curve, plan.strength, rows)
  else lift(picture, plan.curve, plan.strength)
}

/**
 * Whether a picture is a page rather than a scene: most of it is light, hardly coloured and alike.
 */
export function looksLikePage({ data, width, height }: Rgba): boolean {
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / 20_000)))
  const lumas: number[] = []
  let plain = 0
  for (let y = 0; y < height; y += step)
    for (let x = 0; x < width; x += step) {
      const at = (y * width + x) * 4
      const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!]
      lumas.push(luma(r, g, b))
      if (Math.max(r, g, b) - Math.min(r, g, b) < 0.3 * Math.max(r, g, b)) plain++
    }
  lumas.sort((a, b) => a - b)
  const [middle, light] = [lumas[lumas.length >> 1]!, lumas[Math.floor(lumas.length * 0.95)]!]
  return plain > 0.6 * lumas.length && middle > 0.6 * light
}

const luma = (r: number, g: number, b: number): number => (r * 77 + g * 150 + b * 29) / 256

/**
 * Tiles this far from the paper's own colour are painted over; so are those this much darker than
 * the light around them.
 */
const PAINTED_FROM = 0.16
const DARK_SHARE = 0.62

function findLight(picture: Rgba): Light {
  const { data, width, height } = picture
  const tile = Math.max(4, Math.ceil(Math.max(width, height) / TILES))
  const [across, down] = [Math.ceil(width / tile), Math.ceil(height / tile)]
  const counts = new Uint32Array(256)
  const seen = [0, 1, 2].map((channel) => {
    const found = new Float32Array(across * down)
    for (let row = 0; row < down; row++)
      for (let column = 0; column < across; column++)
        found[row * across + column] = paperIn(column, row, channel)
    return found
  })
  const lightness = seen[0]!.map((r, i) => luma(r, seen[1]![i]!, seen[2]![i]!))
  const paper = paperColour(seen, lightness)
  const around = spread(spread(lightness, across, down, Math.max), across, down, Math.min)
  // What has another colour than the paper, or is darker than everything within reach, is drawn on
  // it: light is filled in from around.
  const known = lightness.map((light, i) => {
    const off = Math.hypot(
      ...seen.map((channel, c) => channel[i]! / Math.max(1, light) - paper[c]!),
    )
    return off < PAINTED_FROM && light > DARK_SHARE * around[i]! ? 1 : 0
  })
  const sure = known.map((is, i) => (is && neighbours(known, across, down, i) >= 0.5 ? 1 : 0))
  const even = smooth(
    smooth(fillIn(sure.some(Boolean) ? lightness : around, sure, across, down), across, down),
    across,
    down,
  )
  return {
    across,
    down,
    channels: paper.map((share) => even.map((light) => light * share)) as Light['channels'],
  }

  function paperIn(column: number, row: number, channel: number): number {
    counts.fill(0)
    const step = Math.max(1, tile >> 4)
    let all = 0
    for (let y = row * tile; y < Math.min(height, (row + 1) * tile); y += step)
      for (let x = column * tile; x < Math.min(width, (column + 1) * tile); x += step, all++)
        counts[data[(y * width + x) * 4 + channel]!]!++
    return quantile(counts, all, PAPER_SHARE)
  }
}

/**
 * The colour of the paper in this light, as shares of its lightness: the middle of the lighter half
 * of all tiles.
 */
function paperColour(seen: readonly Float32Array[], lightness: Float32Array): number[] {
  const middle = [...lightness].sort((a, b) => a - b)[lightness.length >> 1]!
  const lighter = [...lightness.keys()].filter((i) => lightness[i]! >= middle)
  return seen.map((channel) => {
    const shares = lighter
      .map((i) => channel[i]! / Math.max(1, lightness[i]!))
      .sort((a, b) => a - b)
    return shares[shares.length >> 1] ?? 1
  })
}

/**
 * The share of a tile's neighbours that are set: paper comes in patches, not in single tiles at a
 * painting's edge.
 */
function neighbours(grid: Float32Array, across: number, down: number, i: number): number {
  const [x, y] = [i % across, Math.floor(i / across)]
  let [sum, count] = [-1, -1]
  for (let ny = Math.max(0, y - 1); ny <= Math.min(down - 1, y + 1); ny++)
    for (let nx = Math.max(0, x - 1); nx <= Math.min(across - 1, x + 1); nx++, count++)
      sum += grid[ny * across + nx]!
  return sum / Math.max(1, count)
}

/**
 * Unknown tiles take the mean of known neighbours, ring by ring; what is far from all light takes
 * it last.
 */
function fillIn(
  grid: Float32Array,
  known: Float32Array,
  across: number,
  down: number,
): Float32Array {
  const filled = grid.slice()
  let rest = [...known.keys()].filter((i) => known[i] === 0)
  const isKnown = known.slice()
  while (rest.length > 0 && rest.length < grid.length) {
    const now: { i: number; value: number }[] = []
    for (const i of rest) {
      const [x, y] = [i % across, Math.floor(i / across)]
      let [sum, count] = [0, 0]
      for (let ny = Math.max(0, y - 1); ny <= Math.min(down - 1, y + 1); ny++)
        for (let nx = Math.max(0, x - 1); nx <= Math.min(across - 1, x + 1); nx++)
          if (isKnown[ny * across + nx]) {
            sum += filled[ny * across + nx]!
            count++
          }
      if (count > 0) now.push({ i, value: sum / count })
    }
    for (const { i, value } of now) {
      filled[i] = value
      isKnown[i] = 1
    }
    rest = rest.filter((i) => !isKnown[i])
  }
  return filled
}

/** The value below which a share of what was counted lies. */
function quantile(counts: ArrayLike<number>, all: number, share: number): number {
  let below = 0
  for (let value = 0; value < counts.length; value++) {
    below += counts[value]!
    if (below >= all * share) return value
  }
  return counts.length - 1
}

/**
 * The largest (or smallest) within reach, along rows and then columns; outside the picture there is
 * nothing.
 */
function spread(
  grid: Float32Array,
  across: number,
  down: number,
  most: (...values: number[]) => number,
): Float32Array {
  const pass = (
    from: Float32Array,
    step: number,
    length: number,
    lineStep: number,
    lines: number,
  ) => {
    const to = new Float32Array(from.length)
    for (let line = 0; line < lines; line++)
      for (let i = 0; i < length; i++) {
        let found = from[line * lineStep + i * step]!
        for (let j = Math.max(0, i - REACH); j <= Math.min(length - 1, i + REACH); j++)
          found = most(found, from[line * lineStep + j * step]!)
        to[line * lineStep + i * step] = found
      }
    return to
  }
  return pass(pass(grid, 1, across, across, down), across, down, 1, across)
}

/** The mean of each tile and its eight neighbours; at the edges the slope goes on. */
function smooth(grid: Float32Array, across: number, down: number): Float32Array {
  const at = (x: number, y: number): number => {
    const [insideX, insideY] = [
      Math.min(across - 1, Math.max(0, x)),
      Math.min(down - 1, Math.max(0, y)),
    ]
    const mirrored =
      grid[
        Math.min(down - 1, Math.max(0, 2 * insideY - y)) * across +
          Math.min(across - 1, Math.max(0, 2 * insideX - x))
      ]!
    const inside = grid[insideY * across + insideX]!
    return insideX === x && insideY === y ? inside : 2 * inside - mirrored
  }
  return grid.map((_, i) => {
    const [x, y] = [i % across, Math.floor(i / across)]
    let sum = 0
    for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += at(x + dx, y + dy)
    return sum / 9
  })
}

const EVEN = [1, 1, 1] as const

/** How often each brightness occurs, as it is or as it would be in even light. */
function lumaHistogram(picture: Rgba, light: Light | null = null): Uint32Array {
  const counts = new Uint32Array(256)
  const { data, width, height } = picture
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / 250_000)))
  const gains = light && new LightRow(light, width, height)
  for (let y = 0; y < height; y += step) {
    gains?.moveTo(y)
    for (let x = 0; x < width; x += step) {
      const at = (y * width + x) * 4
      const gain = gains?.at(x) ?? EVEN
      const light =
        (luma(data[at]! * gain[0], data[at + 1]! * gain[1], data[at + 2]! * gain[2]) + 0.5) | 0
      counts[light < 255 ? light : 255]!++
    }
  }
  return counts
}

/**
 * Black point at the darkest half percent, but no lighter than a soft pencil's grey; white at the
 * paper.
 */
function pageCurve(counts: Uint32Array): Uint8ClampedArray {
  const all = counts.reduce((sum, count) => sum + count, 0)
  const black = Math.min(90, quantile(counts, all, 0.005))
  const white = Math.max(black + 60, PAPER_WHITE - 6)
  return curveOf((value) => ((value - black) / (white - black)) * 255)
}

/** Middle tones are lifted at most to this. */
const SCENE_MIDDLE = 115
function sceneCurve(counts: Uint32Array): Uint8ClampedArray {
  const all = counts.reduce((sum, count) => sum + count, 0)
  const black = Math.min(40, quantile(counts, all, 0.005))
  const white = Math.max(black + 40, quantile(counts, all, 0.995))
  const middle = Math.min(
    0.95,
    Math.max(0.02, (quantile(counts, all, 0.5) - black) / (white - black)),
  )
  const gamma = Math.min(1, Math.max(0.55, Math.log(SCENE_MIDDLE / 255) / Math.log(middle)))
  return curveOf(
    (value) => 255 * Math.max(0, Math.min(1, (value - black) / (white - black))) ** gamma,
  )
}

const curveOf = (to: (value: number) => number): Uint8ClampedArray =>
  Uint8ClampedArray.from({ length: 256 }, (_, value) => to(value))

function evenOut(
  picture: Rgba,
  light: Light,
  curve: Uint8ClampedArray,
  strength: number,
  rows: { from: number; of: number },
): void {
  const { data, width, height } = picture
  const gains = new LightRow(light, width, rows.of)
  // In the middle between two entries of the curve, so that a gentle slope of light stays smooth.
  const fine = Float32Array.from({ length: 256 * 4 + 1 }, (_, i) => {
    const [below, share] = [Math.min(255, i >> 2), (i & 3) / 4]
    return curve[below]! + (curve[Math.min(255, below + 1)]! - curve[below]!) * share
  })
  let at = 0
  for (let y = 0; y < height; y++) {
    gains.moveTo(rows.from + y)
    for (let x = 0; x < width; x++, at += 4) {
      const gain = gains.at(x)
      for (let channel = 0; channel < 3; channel++) {
        const value = data[at + channel]!
        const lit = (value * gain[channel]! * 4) | 0
        data[at + channel] = value + (fine[lit < 1020 ? lit : 1020]! - value) * strength
      }
    }
  }
}

/** Brightness moves along the curve, colours keep their proportions. */
function lift({ data }: Rgba, curve: Uint8ClampedArray, strength: number): void {
  const gain = Float32Array.from(
    curve,
    (to, from) => 1 + (Math.min(MOST_GAIN, (to + 1) / (from + 1)) - 1) * strength,
  )
  for (let at = 0; at < data.length; at += 4) {
    const by = gain[luma(data[at]!, data[at + 1]!, data[at + 2]!) | 0]!
    data[at] = data[at]! * by
    data[at + 1] = data[at + 1]! * by
    data[at + 2] = data[at + 2]! * by
  }
}

/**
 * The gain that makes paper white, along one row after the other: bilinear between the middles of
 * tiles.
 */
class LightRow {
  readonly #light: Light
  readonly #height: number
  /** For each place along the row, its left tile and how far it lies towards the next. */
  readonly #left: Uint16Array
  readonly #share: Float32Array
  readonly #row: [Float32Array, Float32Array, Float32Array]
  readonly #gains: [number, number, number] = [1, 1, 1]

  constructor(light: Light, width: number, height: number) {
    this.#light = light
    this.#height = height
    this.#left = new Uint16Array(width)
    this.#share = new Float32Array(width)
    for (let x = 0; x < width; x++) {
      const place = between(((x + 0.5) / width) * light.across - 0.5, light.across)
      this.#left[x] = place
      this.#share[x] = light.across > 1 ? place - Math.floor(place) : 0
    }
    this.#row = [
      new Float32Array(light.across + 1),
      new Float32Array(light.across + 1),
      new Float32Array(light.across + 1),
    ]
  }

  moveTo(y: number): void {
    const { across, down, channels } = this.#light
    const place = between(((y + 0.5) / this.#height) * down - 0.5, down)
    const [upper, share] = [Math.floor(place), place - Math.floor(place)]
    const lower = Math.min(down - 1, upper + 1)
    for (let channel = 0; channel < 3; channel++) {
      const grid = channels[channel]!
      const row = this.#row[channel]!
      for (let i = 0; i < across; i++)
        row[i] = Math.min(
          MOST_GAIN,
          PAPER_WHITE /
            Math.max(
              1,
              grid[upper * across + i]! * (1 - share) + grid[lower * across + i]! * share,
            ),
        )
      row[across] = row[across - 1]!
    }
  }

  /** Red, green and blue; the same three numbers are used again at the next call. */
  at(x: number): readonly [number, number, number] {
    const left = this.#left[x]!
    const share = this.#share[x]!
    for (let channel = 0; channel < 3; channel++) {
      const row = this.#row[channel]!
      this.#gains[channel] = row[left]! + (row[left + 1]! - row[left]!) * share
    }
    return this.#gains
  }
}

const between = (place: number, count: number): number => Math.min(count - 1, Math.max(0, place))
