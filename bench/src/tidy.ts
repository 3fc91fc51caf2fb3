import { AS_IT_WAS, type Tidying } from '@nibquill/core'
import type { Quad } from '@nibquill/core/tidy/projective'
import { findPage } from '@nibquill/core/tidy/findPage'
import { photographSheet, sheetOfDifficulty } from '@nibquill/demo'
import { build } from 'esbuild'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { Worker } from 'node:worker_threads'
import sharp from 'sharp'
import { inTurn, line, type Line } from './measure.ts'

const SIZE = { width: 4000, height: 3000 }
const CORNERS: Quad = [
  { x: 0.12, y: 0.15 },
  { x: 0.87, y: 0.09 },
  { x: 0.95, y: 0.9 },
  { x: 0.05, y: 0.93 },
]
const PAGE = { width: 3300, height: 2400 }
const ROUNDS = 5

const DESKS = 100
/**
 * None of these photos was seen while the finder's weights were chosen (seeds 1 to 100, checked on
 * 1001 to 1100).
 */
const FIRST_SEED = 5001
/**
 * A corner may be off by this share of the photo's diagonal: less than a finger's width on a
 * tablet.
 */
const NEAR_SHARE = 0.02

export async function benchTidy(): Promise<Line[]> {
  return [await benchStraighten(), ...(await benchFinding())]
}

/**
 * Twelve megapixels straightened in a worker against ImageMagick on one thread, both from raw
 * pixels to raw pixels.
 */
async function benchStraighten(): Promise<Line> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-tidy-'))
  const data = await sharp({
    create: {
      ...SIZE,
      channels: 4,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 50 },
    },
  })
    .ensureAlpha()
    .raw()
    .toBuffer()
  const [from, to] = [path.join(folder, 'from.rgba'), path.join(folder, 'to.rgba')]
  writeFileSync(from, data)
  // Node starts workers without our loader of TypeScript: the same bundler that makes the tests
  // makes this one file.
  const worker = new Worker(await bundle('tidyWorker.ts', folder))
  const tidying: Tidying = { ...AS_IT_WAS, corners: CORNERS }
  const pixels = new Uint8ClampedArray(data)
  const ours = () =>
    new Promise((resolve) => {
      worker.once('message', resolve)
      worker.postMessage({ data: pixels, ...SIZE, tidying })
    })
  const pairs = [
    [0, 0],
    [PAGE.width, 0],
    [PAGE.width, PAGE.height],
    [0, PAGE.height],
  ]
    .map(([x, y], i) => `${CORNERS[i]!.x * SIZE.width},${CORNERS[i]!.y * SIZE.height} ${x},${y}`)
    .join(' ')
  const floor = () =>
    Promise.resolve(
      execFileSync('convert', [
        '-limit',
        'thread',
        '1',
        '-size',
        `${SIZE.width}x${SIZE.height}`,
        '-depth',
        '8',
        `rgba:${from}`,
        '-define',
        `distort:viewport=${PAGE.width}x${PAGE.height}+0+0`,
        '-distort',
        'Perspective',
        pairs,
        '-depth',
        '8',
        `rgba:${to}`,
      ]),
    )
  await ours()
  const times = await inTurn(ROUNDS, ours, floor)
  await worker.terminate()
  rmSync(folder, { recursive: true })
  return line('straighten 12 megapixels (ms)', times.value, times.floor, 'ms', '<=', 1.5)
}

async function bundle(name: string, folder: string): Promise<string> {
  const outfile = path.join(folder, name.replace('.ts', '.mjs'))
  await build({
    entryPoints: [path.join(import.meta.dirname, name)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
  })
  return outfile
}

/**
 * Pages found on a hundred rendered desk photos, from easy to hopeless; and on the easier half of
 * them.
 */
async function benchFinding(): Promise<Line[]> {
  const found: boolean[] = []
  for (let i = 0; i < DESKS; i++) {
    const seed = FIRST_SEED + i
    const { jpeg, corners } = await photographSheet(sheetOfDifficulty(i / (DESKS - 1), seed), seed)
    const { data, info } = await sharp(jpeg)
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    const page = findPage({
      data: new Uint8ClampedArray(data),
      width: info.width,
      height: info.height,
    })
    found.push(page !== null && farthest(page.corners, corners, info) < NEAR_SHARE)
  }
  const count = (some: boolean[]) => some.filter(Boolean).length
  return [
    line('pages found on desk photos', count(found), DESKS, 'pages', '>=', 0.7),
    line(
      'pages found on the easier half',
      count(found.slice(0, DESKS / 2)),
      DESKS / 2,
      'pages',
      '>=',
      0.9,
    ),
  ]
}

/**
 * The corner that is farthest off, as a share of the diagonal; which corner is called the first
 * does not matter.
 */
function farthest(a: Quad, b: Quad, { width, height }: { width: number; height: number }): number {
  const off = (turn: number) =>
    Math.max(
      ...b.map(({ x, y }, i) =>
        Math.hypot((x - a[(i + turn) % 4]!.x) * width, (y - a[(i + turn) % 4]!.y) * height),
      ),
    )
  return Math.min(...[0, 1, 2, 3].map(off)) / Math.hypot(width, height)
}
