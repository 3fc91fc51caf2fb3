import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { findPage } from './findPage.ts'
import type { Quad } from './projective.ts'
import { resample, type Rgba } from './resample.ts'
import { planTidying } from './planTidying.ts'
import { AS_IT_WAS } from './tidying.ts'

const SHEET = { width: 840, height: 594 }
const DESK = { width: 1200, height: 900 }

/**
 * A sheet with a soft drawing on it and a dark spot in each corner, whose middles can be measured.
 */
function drawSheet(): Rgba {
  const { width, height } = SHEET
  const data = new Uint8ClampedArray(width * height * 4)
  const spots = SPOTS.map(({ x, y }) => ({ x: x * width, y: y * height }))
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let spot = Infinity
      for (const middle of spots)
        spot = Math.min(spot, Math.hypot(x + 0.5 - middle.x, y + 0.5 - middle.y))
      const ink = spot < 14 ? 0 : spot < 16 ? 0.5 * (spot - 14) : 1
      const wave = 0.5 + 0.5 * Math.sin(x / 23) * Math.cos(y / 31)
      data.set(
        [ink * (150 + 90 * wave), ink * (180 + 60 * wave), ink * (200 + 40 * (1 - wave)), 255],
        (y * width + x) * 4,
      )
    }
  return { data, width, height }
}

const SPOTS = [
  { x: 0.1, y: 0.1 },
  { x: 0.9, y: 0.1 },
  { x: 0.9, y: 0.9 },
  { x: 0.1, y: 0.9 },
]
const sheet = drawSheet()

/** The middle of what is dark near a place. */
function spotNear(
  { data, width, height }: Rgba,
  share: { x: number; y: number },
): { x: number; y: number } {
  let [sum, sx, sy] = [0, 0, 0]
  const [mx, my] = [Math.round(share.x * width), Math.round(share.y * height)]
  for (let y = my - 30; y <= my + 30; y++)
    for (let x = mx - 30; x <= mx + 30; x++) {
      const dark = Math.max(0, 100 - data[(y * width + x) * 4 + 1]!)
      sum += dark
      sx += dark * (x + 0.5)
      sy += dark * (y + 0.5)
    }
  return { x: sx / sum / width, y: sy / sum / height }
}

/**
 * Warped by ImageMagick, which knows nothing of our formulas.
 * @see ImageMagick, -distort Perspective
 */
function warpedByImageMagick(sheet: Rgba, corners: Quad): Rgba {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-warp-'))
  const [from, to] = [path.join(folder, 'sheet.rgba'), path.join(folder, 'desk.rgba')]
  writeFileSync(from, sheet.data)
  const pairs = [
    [0, 0],
    [SHEET.width, 0],
    [SHEET.width, SHEET.height],
    [0, SHEET.height],
  ]
    .map(([x, y], i) => `${x},${y} ${corners[i]!.x * DESK.width},${corners[i]!.y * DESK.height}`)
    .join(' ')
  execFileSync('convert', [
    '-size',
    `${SHEET.width}x${SHEET.height}`,
    '-depth',
    '8',
    `rgba:${from}`,
    '-virtual-pixel',
    'background',
    '-background',
    '#5a4030',
    '-define',
    `distort:viewport=${DESK.width}x${DESK.height}+0+0`,
    '-distort',
    'Perspective',
    pairs,
    '-alpha',
    'off',
    '-depth',
    '8',
    `rgba:${to}`,
  ])
  const data = new Uint8ClampedArray(readFileSync(to))
  rmSync(folder, { recursive: true })
  return { data, ...DESK }
}

const WARPS: { name: string; corners: Quad }[] = [
  {
    name: 'from straight above',
    corners: [
      { x: 0.15, y: 0.15 },
      { x: 0.85, y: 0.15 },
      { x: 0.85, y: 0.81 },
      { x: 0.15, y: 0.81 },
    ],
  },
  {
    name: 'from the front',
    corners: [
      { x: 0.24, y: 0.2 },
      { x: 0.76, y: 0.2 },
      { x: 0.9, y: 0.85 },
      { x: 0.1, y: 0.85 },
    ],
  },
  {
    name: 'askew',
    corners: [
      { x: 0.12, y: 0.25 },
      { x: 0.78, y: 0.1 },
      { x: 0.93, y: 0.72 },
      { x: 0.2, y: 0.9 },
    ],
  },
]

test.each(WARPS)('a sheet warped by ImageMagick $name lies flat again', ({ corners }) => {
  const desk = warpedByImageMagick(sheet, corners)
  const flat = resample(desk, planTidying(DESK, { ...AS_IT_WAS, corners }))
  // Spots where they were, within half a thousandth of the sheet's width (0.4 pixels).
  const errors = SPOTS.map((share) => {
    const found = spotNear(flat, share)
    return Math.hypot(found.x - share.x, found.y - share.y)
  })
  expect(Math.max(...errors)).toBeLessThan(0.001)
  // And the drawing as it was, but for two softenings: difference in grey levels, measured on the
  // sheet's own raster.
  const back = resample(flat, {
    ...SHEET,
    toOriginal: [flat.width / SHEET.width, 0, 0, 0, flat.height / SHEET.height, 0, 0, 0, 1],
  })
  let difference = 0
  for (let i = 0; i < back.data.length; i += 4)
    difference += Math.abs(back.data[i + 1]! - sheet.data[i + 1]!)
  expect(difference / (back.data.length / 4)).toBeLessThan(1.5)
})

test.each(WARPS)(
  'the corners of a sheet warped by ImageMagick $name are found by themselves',
  ({ corners }) => {
    const found = findPage(warpedByImageMagick(sheet, corners))
    const errors = found!.corners.map(({ x, y }, i) =>
      Math.hypot((x - corners[i]!.x) * DESK.width, (y - corners[i]!.y) * DESK.height),
    )
    expect(Math.max(...errors)).toBeLessThan(2)
  },
)

test('no page, no guess: an empty table and a dark room find nothing', () => {
  const plain = (value: number): Rgba => ({
    data: new Uint8ClampedArray(200 * 150 * 4).fill(value),
    width: 200,
    height: 150,
  })
  expect(findPage(plain(120))).toBeNull()
  expect(findPage(plain(2))).toBeNull()
})
