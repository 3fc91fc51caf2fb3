import { DomainError, MAX_MEGAPIXELS, MAX_WHOLE_MEGAPIXELS } from '@nibquill/core'
import type { PictureType } from '@nibquill/core/media/removeTraces'
import path from 'node:path'
import { Worker } from 'node:worker_threads'
import pLimit from 'p-limit'
import sharp, { type Metadata } from 'sharp'
import type { Sniffed } from '../sniff.ts'
import { copyWithoutTraces } from './copyWithoutTraces.ts'
import type { Kept } from './kinds.ts'

const MAX_PIXELS = MAX_MEGAPIXELS * 1_000_000
const MAX_WHOLE_PIXELS = MAX_WHOLE_MEGAPIXELS * 1_000_000
/** HEIC allows no way round coding anew; at 92 nobody sees it. */
const JPEG_FROM_HEIC = { quality: 92, chromaSubsampling: '4:4:4' } as const

/** Decoding HEIC holds every pixel in memory: two at a time. */
const decoding = pLimit(2)

/**
 * Takes in a picture: cleaned of place, time and device, its pixels as they were.
 * @throws DomainError `media/unreadable`, `media/too-many-pixels`
 */
export async function takePicture(
  file: string,
  { type, turned }: Sniffed,
  scratch: string,
): Promise<Kept> {
  const clean = path.join(scratch, 'clean')
  if (turned) {
    await decoding(() => heicToJpeg(file, clean))
    return { file: clean, type, ...(await sizeOf(clean)) }
  }
  const kept = await copyWithoutTraces(file, type as PictureType, clean)
  return { file: kept, type, ...(await sizeOf(kept)) }
}

/** @returns the upright size */
async function sizeOf(file: string): Promise<{ width: number; height: number }> {
  // Reads the header only; a picture that stops half-way is still one.
  const about = await sharp(file, { failOn: 'none', limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (!about?.width || !about.height) throw new DomainError('media/unreadable')
  refuseGiants(about.width * about.height, isDecodedWhole(about))
  const sideways = (about.orientation ?? 1) >= 5
  return sideways
    ? { width: about.height, height: about.width }
    : { width: about.width, height: about.height }
}

/**
 * Some pictures are decoded line by line; these only as a whole, with every pixel in memory at
 * once.
 */
const isDecodedWhole = ({ format, isProgressive }: Metadata): boolean =>
  isProgressive === true || format === 'webp' || format === 'gif' || format === 'heif'

function refuseGiants(pixels: number, whole: boolean): void {
  if (pixels > (whole ? MAX_WHOLE_PIXELS : MAX_PIXELS))
    throw new DomainError('media/too-many-pixels', { whole })
}

async function heicToJpeg(file: string, into: string): Promise<void> {
  // The size stands in the header; what decoding makes of it is four bytes a pixel.
  const about = await sharp(file, { limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (!about?.width || !about.height) throw new DomainError('media/unreadable')
  refuseGiants(about.width * about.height, true)
  const { width, height, data } = await decodeHeic(file).catch(() => {
    throw new DomainError('media/unreadable')
  })
  refuseGiants(width * height, true)
  await sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg(JPEG_FROM_HEIC)
    .toFile(into)
}

function decodeHeic(file: string): Promise<{ width: number; height: number; data: Uint8Array }> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./heicDecoder.mjs', import.meta.url), { workerData: file })
    worker.once('message', (picture: { width: number; height: number; data: Uint8Array }) =>
      resolve({ ...picture, data: new Uint8Array(picture.data) }),
    )
    worker.once('error', reject)
    worker.once('exit', (code) => reject(new Error(`HEIC decoder ended with ${code}`)))
  })
}
