import { CARD_LOOKS, CARD_READER, greyOf, readCard } from '@nibquill/core'
import { CAMERA_FRAME, photographCard, PLAIN_VIEW, type CardView } from '@nibquill/demo'
import { chromium, type Browser } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import path from 'node:path'
import sharp from 'sharp'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import { scratch } from './materials.ts'
import config, { FOR_SECONDS } from './playwright.config.ts'

const DPI = 200

/**
 * Cards of a printed sheet as they come out of the scissors: the PDF drawn by poppler, cut along
 * its lines.
 */
export async function cutCards(pdf: Buffer, across = 2, down = 4): Promise<Buffer[]> {
  const folder = scratch()
  writeFileSync(path.join(folder, 'sheet.pdf'), pdf)
  execFileSync('pdftoppm', [
    '-r',
    String(DPI),
    '-tiff',
    '-singlefile',
    path.join(folder, 'sheet.pdf'),
    path.join(folder, 'sheet'),
  ])
  const sheet = readFileSync(path.join(folder, 'sheet.tif'))
  const { width, height } = await sharp(sheet).metadata()
  const size = { width: Math.floor(width / across), height: Math.floor(height / down) }
  const places = Array.from({ length: across * down }, (_, i) => ({
    left: (i % across) * size.width,
    top: Math.floor(i / across) * size.height,
  }))
  return Promise.all(
    places.map((place) =>
      sharp(sheet)
        .extract({ ...place, ...size })
        .png()
        .toBuffer(),
    ),
  )
}

/**
 * A film of one picture held still, as Chromium's fake camera plays it: JPEG after JPEG.
 * @returns its file
 */
export function filmPicture(jpeg: Buffer): string {
  const file = path.join(scratch(), 'camera.mjpeg')
  writeFileSync(file, Buffer.concat(Array.from({ length: 12 }, () => jpeg)))
  return file
}

export const filmCard = async (card: Buffer, view: Partial<CardView>): Promise<string> =>
  filmPicture(await photographCard(card, { ...PLAIN_VIEW, ...view }, 7, CAMERA_FRAME))

/** Chromium before whose camera a film runs. */
export const launchWithCamera = (film: string): Promise<Browser> =>
  launchReckoning(`--use-file-for-fake-video-capture=${film}`)
/** Chromium before whose microphone a WAV is played, over and over. */
export const launchHearing = (sound: string): Promise<Browser> =>
  launchReckoning(`--use-file-for-fake-audio-capture=${sound}`)

/** Chromium in which script that works on pictures becomes fast. */
export function launchReckoning(...more: string[]): Promise<Browser> {
  const { executablePath, args = [] } = config.use?.launchOptions ?? {}
  const ordinary = args.filter((one) => one !== FOR_SECONDS)
  return chromium.launch({ executablePath, args: [...ordinary, ...more] })
}

/**
 * What the client's reader makes of a filmed card, look by look as its worker does, without a
 * browser around it.
 */
export async function readFilmed(card: Buffer, view: Partial<CardView>): Promise<string> {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm')
  prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(readFileSync(wasm)).buffer } })
  const jpeg = await photographCard(card, { ...PLAIN_VIEW, ...view }, 7, CAMERA_FRAME)
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const grey = greyOf({ data: new Uint8ClampedArray(data), width: info.width, height: info.height })
  const said = await readCard(grey, CARD_LOOKS, async (rgba) => {
    // Node has no ImageData; the reader looks at these only.
    const picture = { ...rgba, colorSpace: 'srgb' } as Parameters<typeof readBarcodes>[0]
    const [found] = await readBarcodes(picture, { ...CARD_READER, formats: ['QRCode'] })
    return found?.isValid ? found.text : null
  })
  return said ?? 'nothing'
}
