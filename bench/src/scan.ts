import {
  CARD_LOOKS,
  CARD_READER,
  greyOf,
  lookAt,
  readCard,
  rgbaOf,
  writeCardLink,
} from '@nibquill/core'
import { photographCard, viewOfDifficulty } from '@nibquill/demo'
import { drawCards } from '@nibquill/server/accounts/drawCards'
import { execFileSync } from 'node:child_process'
import { createWriteStream, mkdtempSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { prepareZXingModule, readBarcodes, type ReaderOptions } from 'zxing-wasm/reader'
import { line, median, timeMs, type Line } from './measure.ts'

const PICTURES = 200
const CODE = 'ACDEFGHJKMNPRTWX'
const CARD = {
  name: 'Wren',
  className: 'Heron',
  peg: { symbol: 'fish', colour: 'aubergine' },
  code: CODE,
  address: writeCardLink('https://nibquill.saltmarsh.example', CODE),
} as const

/**
 * Pictures of a printed card that get harder and harder to read, by our looks against the reader
 * alone with its own settings.
 * The hardest cannot be read by anybody; how many of the 200 can is not known, so the reader alone
 * is the floor.
 */
export async function benchScan(): Promise<Line[]> {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm')
  prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(readFileSync(wasm)).buffer } })
  const card = await printedCard()
  const read = { ours: 0, alone: 0 }
  const times = { ours: [] as number[], alone: [] as number[] }
  for (let i = 0; i < PICTURES; i++) {
    const picture = await cameraPicture(card, i)
    const grey = greyOf(picture)
    read.alone += Number((await decode(picture)) === CARD.address)
    read.ours += Number(
      (await readCard(grey, CARD_LOOKS, (rgba) => decode(rgba, OURS))) === CARD.address,
    )
    // What each picture of a running camera costs: one look, the commonest.
    times.alone.push(await timeMs(() => decode(picture)))
    times.ours.push(await timeMs(() => decode(rgbaOf(lookAt(greyOf(picture), 'smooth')), OURS)))
  }
  return [
    line(`cards read of ${PICTURES} pictures`, read.ours, read.alone, 'cards', '>=', 1.05),
    line('one picture of the camera (ms)', median(times.ours), median(times.alone), 'ms', '<=', 1),
  ]
}

const OURS: ReaderOptions = { ...CARD_READER, formats: ['QRCode'] }
type Rgba = ReturnType<typeof rgbaOf>

async function decode(
  { data, width, height }: Rgba,
  options: ReaderOptions = {},
): Promise<string | null> {
  // Node has no ImageData; the reader looks at these three only.
  const [found] = await readBarcodes(
    { data, width, height, colorSpace: 'srgb' } as Parameters<typeof readBarcodes>[0],
    options,
  )
  return found?.isValid ? found.text : null
}

async function cameraPicture(card: Buffer, i: number): Promise<Rgba> {
  const jpeg = await photographCard(card, viewOfDifficulty(i / (PICTURES - 1), i + 1), i + 1)
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return { data: new Uint8ClampedArray(data), width: info.width, height: info.height }
}

/** The first card of a sheet as it is printed. */
async function printedCard(): Promise<Buffer> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-scan-'))
  await drawCards(
    [CARD],
    {
      title: 'Name cards',
      schoolName: 'Saltmarsh Primary School',
      site: 'https://nibquill.example',
    },
    createWriteStream(path.join(folder, 'cards.pdf')),
  )
  execFileSync('pdftoppm', [
    '-r',
    '200',
    '-png',
    '-singlefile',
    path.join(folder, 'cards.pdf'),
    path.join(folder, 'cards'),
  ])
  const sheet = sharp(path.join(folder, 'cards.png'))
  const { width, height } = await sheet.metadata()
  return sheet
    .extract({ left: 0, top: 0, width: Math.floor(width / 2), height: Math.floor(height / 4) })
    .png()
    .toBuffer()
}
