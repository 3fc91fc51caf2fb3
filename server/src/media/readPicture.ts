import { fileTypeFromBuffer } from 'file-type'
import {
  DomainError,
  MAX_MEGAPIXELS,
  MAX_WHOLE_MEGAPIXELS,
  PICTURE_TYPES,
  removeTraces,
  type PictureType,
} from '@nibquill/core'
import { Worker } from 'node:worker_threads'
import sharp, { type Metadata } from 'sharp'

export type Picture = { bytes: Uint8Array; type: PictureType; width: number; height: number }

const MAX_PIXELS = MAX_MEGAPIXELS * 1_000_000
const MAX_WHOLE_PIXELS = MAX_WHOLE_MEGAPIXELS * 1_000_000
/** HEIC allows no way round coding anew; at 92 nobody sees it. */
const JPEG_FROM_HEIC = { quality: 92, chromaSubsampling: '4:4:4' } as const

/**
 * Reads what arrived as a picture: by its bytes, never by its name, and cleans it of place, time
 * and device.
 * @returns The clean picture and its upright size.
 * @throws DomainError `media/empty`, `media/not-a-picture`, `media/unreadable`,
 *   `media/too-many-pixels`
 */
export async function readPicture(sent: Uint8Array): Promise<Picture> {
  if (sent.length === 0) throw new DomainError('media/empty')
  const mime = (await fileTypeFromBuffer(sent))?.mime
  if (mime === 'image/heic' || mime === 'image/heif')
    return describe(await heicToJpeg(sent), 'image/jpeg')
  const type = PICTURE_TYPES.find((known) => known === mime)
  if (!type) throw new DomainError('media/not-a-picture')
  return describe(removeTraces(sent, type).bytes, type)
}

async function describe(bytes: Uint8Array, type: PictureType): Promise<Picture> {
  // Reads the header only; a picture that stops half-way is still one.
  const about = await sharp(bytes, { failOn: 'none', limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (!about?.width || !about.height) throw new DomainError('media/unreadable')
  refuseGiants(about.width * about.height, isDecodedWhole(about))
  const sideways = (about.orientation ?? 1) >= 5
  return {
    bytes,
    type,
    width: sideways ? about.height : about.width,
    height: sideways ? about.width : about.height,
  }
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

async function heicToJpeg(sent: Uint8Array): Promise<Uint8Array> {
  // The size stands in the header; what decoding makes of it is four bytes a pixel.
  const about = await sharp(sent, { limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (!about?.width || !about.height) throw new DomainError('media/unreadable')
  refuseGiants(about.width * about.height, true)
  const { width, height, data } = await decodeHeic(sent).catch(() => {
    throw new DomainError('media/unreadable')
  })
  refuseGiants(width * height, true)
  return sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg(JPEG_FROM_HEIC)
    .toBuffer()
}

function decodeHeic(
  sent: Uint8Array,
): Promise<{ width: number; height: number; data: Uint8Array }> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./heicDecoder.mjs', import.meta.url), { workerData: sent })
    worker.once('message', (picture: { width: number; height: number; data: Uint8Array }) =>
      resolve({ ...picture, data: new Uint8Array(picture.data) }),
    )
    worker.once('error', reject)
    worker.once('exit', (code) => reject(new Error(`HEIC decoder ended with ${code}`)))
  })
}
