import { CAMERA_FRAME, photographCard, PLAIN_VIEW, type CardView } from '@nibquill/demo'
import { chromium, type Browser } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import config from './playwright.config.ts'

const DPI = 200

/** Cards of a printed sheet as they come out of the scissors: the PDF drawn by poppler, cut along its lines. */
export async function cutCards(pdf: Buffer, across = 2, down = 4): Promise<Buffer[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-cards-'))
  writeFileSync(path.join(folder, 'sheet.pdf'), pdf)
  execFileSync('pdftoppm', ['-r', String(DPI), '-png', '-singlefile', path.join(folder, 'sheet.pdf'), path.join(folder, 'sheet')])
  const sheet = readFileSync(path.join(folder, 'sheet.png'))
  const { width, height } = await sharp(sheet).metadata()
  const size = { width: Math.floor(width / across), height: Math.floor(height / down) }
  const places = Array.from({ length: across * down }, (_, i) => ({
    left: (i % across) * size.width,
    top: Math.floor(i / across) * size.height,
  }))
  return Promise.all(places.map((place) => sharp(sheet).extract({ ...place, ...size }).png().toBuffer())) // prettier-ignore
}

/** A film of one picture held still, as Chromium's fake camera plays it: JPEG after JPEG. @returns its file */
export function filmPicture(jpeg: Buffer): string {
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'nibquill-film-')), 'camera.mjpeg')
  writeFileSync(file, Buffer.concat(Array.from({ length: 12 }, () => jpeg)))
  return file
}

export const filmCard = async (card: Buffer, view: Partial<CardView>): Promise<string> =>
  filmPicture(await photographCard(card, { ...PLAIN_VIEW, ...view }, 7, CAMERA_FRAME))

/** Chromium before whose camera a film runs. */
export function launchWithCamera(film: string): Promise<Browser> {
  const { executablePath, args = [] } = config.use?.launchOptions ?? {}
  return chromium.launch({ executablePath, args: [...args, `--use-file-for-fake-video-capture=${film}`] })
}
