import { Chance, photograph } from '@nibquill/demo'
import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { chmodSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'

/**
 * A folder to throw away, within the one that is thrown away after all tests; the database's own
 * account must be able to reach it, too.
 */
export function scratch(): string {
  const folder = mkdtempSync(
    path.join(process.env.NIBQUILL_E2E_SCRATCH ?? os.tmpdir(), 'nibquill-e2e-'),
  )
  chmodSync(folder, 0o755)
  return folder
}

/**
 * A 12-megapixel photo as a phone makes it: lying on its side (orientation 6), with position,
 * device and maker data.
 */
export async function phonePhoto(folder: string, name = 'IMG_0042.jpg'): Promise<string> {
  const file = path.join(folder, name)
  const upright = await sharp(await photograph('crab', new Chance(7)))
    .resize(3000, 4000, { fit: 'cover' })
    .toBuffer()
  writeFileSync(file, await sharp(upright).rotate(270).jpeg({ quality: 92 }).toBuffer())
  execFileSync('exiftool', [
    '-q',
    '-overwrite_original',
    '-n',
    '-Orientation=6',
    '-GPSLatitude=53.3',
    '-GPSLatitudeRef=N',
    '-GPSLongitude=0.4',
    '-GPSLongitudeRef=W',
    '-Make=Nobody',
    '-Model=Made-up 1',
    '-SerialNumber=12345',
    '-DateTimeOriginal=2026:11:20 10:11:12',
    '-XMP:GPSLatitude=53.3',
    '-XMP:CreatorTool=Nobody',
    '-IPTC:City=Saltmarsh',
    '-Comment=made at home',
    file,
  ])
  return file
}

/** Every tag exiftool finds that could tell where, when or with what a picture was taken. */
export function tracesIn(file: string): string[] {
  const tags = Object.keys(
    JSON.parse(
      execFileSync('exiftool', ['-j', '-G1', '-a', '-u', '-ee', file], { encoding: 'utf8' }),
    )[0] as Record<string, unknown>,
  )
  return tags.filter((tag) =>
    /GPS|XMP|IPTC|MakerNotes|Serial|IFD0:(Make|Model|DateTime|Software)|ExifIFD|Comment|Photoshop|Location/i.test(
      tag,
    ),
  )
}

/**
 * Decodes every QR code on a page of a PDF, rasterised at a resolution, with an independent
 * decoder.
 * @see ISO/IEC 18004
 */
export async function codesInPdf(pdf: string, dpi: number): Promise<string[]> {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm')
  prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(readFileSync(wasm)).buffer } })
  const folder = scratch()
  // Packed as PNG it would take twenty times as long.
  execFileSync('pdftoppm', ['-r', String(dpi), '-gray', pdf, path.join(folder, 'page')])
  const codes: string[] = []
  for (const page of readdirSync(folder).sort()) {
    const found = await readBarcodes(new Uint8Array(readFileSync(path.join(folder, page))), {
      formats: ['QRCode'],
    })
    codes.push(...found.map(({ text }) => text))
  }
  return codes
}

/** A JPEG of about four megabytes that packs no smaller; each seed gives another. */
export async function heavyPhoto(folder: string, name: string, seed = 1): Promise<string> {
  const [width, height] = [1280, 1120]
  const pixels = Buffer.alloc(width * height * 3)
  for (let i = 0, state = seed * 2654435761; i < pixels.length; i++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    pixels[i] = state >>> 24
  }
  const file = path.join(folder, name)
  writeFileSync(
    file,
    await sharp(pixels, { raw: { width, height, channels: 3 } })
      .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
      .toBuffer(),
  )
  return file
}

export const sha256Of = (file: string): string =>
  createHash('sha256').update(readFileSync(file)).digest('hex')

/** Lets a pupil choose files as from the tablet's own pictures. */
export async function pick(page: Page, files: string[]): Promise<void> {
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Pick pictures' }).first().click()
  await (await chooser).setFiles(files)
}

/** A picture of one colour. @returns where it lies */
export async function plain(folder: string, name: string, colour: string): Promise<string> {
  const file = path.join(folder, name)
  const picture = sharp({ create: { width: 300, height: 200, channels: 3, background: colour } })
  writeFileSync(file, await picture.png().toBuffer())
  return file
}
