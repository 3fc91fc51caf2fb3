import type { ShownPath } from './display.ts'
import { UNITS_PER_MM, type At, type Pen, type Stamp, type StampOf } from './document.ts'
import { colourOf, coverOfWater } from './inks.ts'
import { lengthOf, wordsPath } from './letters.ts'
import { boxOf, mapPath, placePath, regular, ringOf, roundOf, wayOf } from './paths.ts'

const MM = UNITS_PER_MM
const CM = 10 * MM
const PAPER = '#FFFFFF'
const THIN = 0.4 * MM
const THICK = 0.8 * MM

/** What each stamp measures when it is put down, in units. */
export const STAMP_SIZES: Record<Stamp['what']['of'], { width: number; height: number }> = {
  shape: { width: 3 * CM, height: 3 * CM },
  arrow: { width: 4 * CM, height: 1.2 * CM },
  tile: { width: 1.5 * CM, height: 1.5 * CM },
  'ten-frame': { width: 7 * CM, height: 2.8 * CM },
  'number-line': { width: 13 * CM, height: 1.6 * CM },
  clock: { width: 4 * CM, height: 4 * CM },
  coin: { width: 2 * CM, height: 2 * CM },
  little: { width: 3 * CM, height: 3 * CM },
}

type Size = { width: number; height: number }
/** Drawn round (0, 0), unturned. */
type Drawn = Omit<ShownPath, 'cover'>
const filled = (path: string, fill: string): Drawn => ({ path, fill, line: null })
const lined = (path: string, colour: string, width = THIN): Drawn => ({
  ...{ path, fill: null, line: { colour, width } },
})
const both = (path: string, fill: string, colour: string, width = THIN): Drawn => ({
  ...{ path, fill, line: { colour, width } },
})
const CENTRE = { x: 0, y: 0 }

/** Words round a middle, as large as they fit. */
function middleWords(words: string, at: At, room: Size, colour: string): Drawn {
  const size = Math.min(room.height, (room.width / Math.max(1, lengthOf(words, 1000))) * 1000)
  const from = { x: at.x - lengthOf(words, size) / 2, y: at.y + 0.36 * size }
  return filled(wordsPath(words, from, size), colour)
}

const corners = (points: readonly (readonly [number, number])[], { width, height }: Size): string =>
  ringOf(points.map(([x, y]) => ({ x: (x * width) / 2, y: (y * height) / 2 })))
const SHAPES: Record<StampOf<'shape'>['name'], (size: Size) => string> = {
  square: ({ width, height }) => boxOf(-width / 2, -height / 2, width, height),
  circle: ({ width, height }) => roundOf(CENTRE, width / 2, height / 2),
  triangle: (size) =>
    corners(
      [
        [0, -1],
        [1, 1],
        [-1, 1],
      ],
      size,
    ),
  'right-triangle': (size) =>
    corners(
      [
        [-1, -1],
        [1, 1],
        [-1, 1],
      ],
      size,
    ),
  diamond: ({ width, height }) => ringOf(regular(4, width / 2, height / 2)),
  pentagon: ({ width, height }) => ringOf(regular(5, width / 2, height / 2)),
  hexagon: ({ width, height }) => ringOf(regular(6, width / 2, height / 2)),
  star: ({ width, height }) =>
    ringOf(
      regular(10, width / 2, height / 2).map(({ x, y }, i) =>
        i % 2 === 0 ? { x, y } : { x: x * 0.42, y: y * 0.42 },
      ),
    ),
}

const ARROWS: Record<StampOf<'arrow'>['name'], (size: Size) => string> = {
  straight: (size) =>
    corners(
      [
        [-1, -0.3],
        [0.5, -0.3],
        [0.5, -1],
        [1, 0],
        [0.5, 1],
        [0.5, 0.3],
        [-1, 0.3],
      ],
      size,
    ),
  both: (size) =>
    corners(
      [
        [-1, 0],
        [-0.55, -1],
        [-0.55, -0.3],
        [0.55, -0.3],
        [0.55, -1],
        [1, 0],
        [0.55, 1],
        [0.55, 0.3],
        [-0.55, 0.3],
        [-0.55, 1],
      ],
      size,
    ),
  bent: (size) =>
    corners(
      [
        [-1, 1],
        [-1, -0.5],
        [0.5, -0.5],
        [0.5, -1],
        [1, -0.1],
        [0.5, 0.8],
        [0.5, 0.2],
        [-0.7, 0.2],
        [-0.7, 1],
      ],
      size,
    ),
}

function tenFrame(
  { count }: StampOf<'ten-frame'>,
  { width, height }: Size,
  colour: string,
): Drawn[] {
  const [left, top, cell, row] = [-width / 2, -height / 2, width / 5, height / 2]
  const lines = [1, 2, 3, 4].map((i) =>
    wayOf([
      { x: left + i * cell, y: top },
      { x: left + i * cell, y: -top },
    ]),
  )
  const middle = wayOf([
    { x: left, y: 0 },
    { x: -left, y: 0 },
  ])
  const dots = Array.from({ length: count }, (_, i) =>
    roundOf(
      { x: left + ((i % 5) + 0.5) * cell, y: top + (Math.floor(i / 5) + 0.5) * row },
      0.34 * Math.min(cell, row),
    ),
  )
  return [
    both(boxOf(left, top, width, height), PAPER, '#2B2118', THICK),
    lined([...lines, middle].join(''), '#2B2118'),
    ...(dots.length > 0 ? [filled(dots.join(''), colour)] : []),
  ]
}

function numberLine(
  { from, to }: StampOf<'number-line'>,
  { width, height }: Size,
  colour: string,
): Drawn[] {
  const steps = to - from
  const [left, inner] = [-width / 2 + 0.5 * CM, width - CM]
  const x = (i: number) => left + (i * inner) / steps
  const y = -height / 4
  const ticks = Array.from({ length: steps + 1 }, (_, i) =>
    wayOf([
      { x: x(i), y: y - height / 7 },
      { x: x(i), y: y + height / 7 },
    ]),
  )
  const every = steps > 20 ? 5 : 1
  const named = Array.from({ length: steps + 1 }, (_, i) => i).filter((i) => i % every === 0)
  // All as large as the longest of them fits.
  const longest = Math.max(...named.map((i) => lengthOf(String(from + i), 1000)))
  const room = (0.8 * every * inner) / steps
  const size = Math.min(height * 0.38, (room / longest) * 1000)
  const numbers = named.map((i) => {
    const words = String(from + i)
    const at = { x: x(i) - lengthOf(words, size) / 2, y: height * 0.36 }
    return filled(wordsPath(words, at, size), '#2B2118')
  })
  const line = wayOf([
    { x: -width / 2, y },
    { x: width / 2, y },
  ])
  return [lined(line + ticks.join(''), colour, 0.5 * MM), ...numbers]
}

function clock(
  { hours, minutes }: StampOf<'clock'>,
  { width, height }: Size,
  colour: string,
): Drawn[] {
  const radius = Math.min(width, height) / 2
  const towards = (twelfths: number, share: number): At => ({
    x: radius * share * Math.sin((twelfths * Math.PI) / 6),
    y: -radius * share * Math.cos((twelfths * Math.PI) / 6),
  })
  const ticks = Array.from({ length: 60 }, (_, i) =>
    wayOf([towards(i / 5, i % 5 === 0 ? 0.88 : 0.92), towards(i / 5, 0.96)]),
  )
  const numbers = Array.from({ length: 12 }, (_, i) =>
    middleWords(
      String(i + 1),
      towards(i + 1, 0.74),
      { width: radius * 0.24, height: radius * 0.24 },
      '#2B2118',
    ),
  )
  return [
    both(roundOf(CENTRE, radius), PAPER, '#2B2118', THICK),
    lined(ticks.join(''), '#2B2118', 0.3 * MM),
    ...numbers,
    lined(wayOf([CENTRE, towards(hours + minutes / 60, 0.42)]), colour, radius * 0.08),
    lined(wayOf([CENTRE, towards(minutes / 5, 0.64)]), colour, radius * 0.05),
    filled(roundOf(CENTRE, radius * 0.06), '#2B2118'),
  ]
}

/** Small pictures in a square from -50 to 50. */
const LITTLE: Record<StampOf<'little'>['name'], string> = {
  sun: 'M-25 0A25 25 0 1 1 25 0A25 25 0 1 1 -25 0ZM-4 -32L4 -32L0 -50ZM-4 32L4 32L0 50ZM-32 -4L-32 4L-50 0ZM32 -4L32 4L50 0ZM-26 -19L-19 -26L-35 -35ZM26 -19L19 -26L35 -35ZM-26 19L-19 26L-35 35ZM26 19L19 26L35 35Z',
  tree: 'M-6 50L-6 20L-34 20L-14 -6L-28 -6L-8 -28L-18 -28L0 -50L18 -28L8 -28L28 -6L14 -6L34 20L6 20L6 50Z',
  house: 'M-36 48L-36 -6L-46 -6L0 -48L46 -6L36 -6L36 48L10 48L10 18L-10 18L-10 48Z',
  fish: 'M-48 -22L-22 -4Q0 -34 30 -16Q44 -8 50 0Q44 8 30 16Q0 34 -22 4L-48 22L-40 0Z',
  drop: 'M0 -50Q34 0 34 18A34 32 0 1 1 -34 18Q-34 0 0 -50Z',
  leaf: 'M-44 46Q-52 -20 0 -44Q26 -52 48 -48Q52 0 30 26Q6 50 -26 34Q-32 44 -44 46Z',
  shell: 'M-10 48L-44 6Q-46 -24 -28 -34Q-16 -50 0 -48Q16 -50 28 -34Q46 -24 44 6L10 48Z',
  cloud: 'M-34 30Q-52 24 -46 4Q-40 -14 -24 -10Q-18 -36 8 -30Q26 -26 28 -8Q48 -8 48 12Q46 30 30 30Z',
  boat: 'M-48 16L48 16L30 42L-30 42ZM-4 10L-4 -48L-40 10ZM4 10L4 -40L34 10Z',
  bird: 'M-50 -20Q-26 -26 0 4Q20 -28 50 -26Q28 -8 14 24Q6 40 0 26Q-14 -6 -50 -20Z',
}

function little({ name }: StampOf<'little'>, { width, height }: Size): string {
  const [x, y] = [width / 100, height / 100]
  return mapPath(
    LITTLE[name],
    (at) => ({ x: at.x * x, y: at.y * y }),
    (rx, ry) => [Math.round(rx * x), Math.round(ry * y), 0],
  )
}

/** The ink of a stamp that is one area, with its edge where it has one. */
const inked = (pen: Pen, path: string): Drawn =>
  pen.edge
    ? both(path, colourOf(pen.ink), colourOf(pen.edge), THICK)
    : filled(path, colourOf(pen.ink))

function drawn({ what, pen, width, height }: Stamp): Drawn[] {
  const size = { width, height }
  const colour = colourOf(pen.ink)
  const side = Math.min(width, height)
  switch (what.of) {
    case 'shape':
      return [inked(pen, SHAPES[what.name](size))]
    case 'arrow':
      return [inked(pen, ARROWS[what.name](size))]
    case 'little':
      return [inked(pen, little(what, size))]
    case 'tile':
      return [
        both(boxOf(-width / 2, -height / 2, width, height), PAPER, '#2B2118', THICK),
        middleWords(what.words, CENTRE, { width: width * 0.7, height: side * 0.72 }, colour),
      ]
    case 'coin':
      return [
        both(roundOf(CENTRE, side / 2), COIN_METALS[what.value > 5 ? 1 : 0]!, '#2B2118', THICK),
        lined(roundOf(CENTRE, side * 0.42), '#2B2118', THIN / 2),
        middleWords(
          String(what.value),
          CENTRE,
          { width: side * 0.5, height: side * 0.5 },
          '#2B2118',
        ),
      ]
    case 'ten-frame':
      return tenFrame(what, size, colour)
    case 'number-line':
      return numberLine(what, size, colour)
    case 'clock':
      return clock(what, size, colour)
  }
}
const COIN_METALS = ['#D9A679', '#DADADA']

/** A stamp as it lies on its sheet. */
export const showStamp = (stamp: Stamp): ShownPath[] =>
  drawn(stamp).map((one) => ({
    ...one,
    path: placePath(one.path, stamp.at, stamp.turn),
    cover: coverOfWater(stamp.pen.water),
  }))
