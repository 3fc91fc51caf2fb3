import { joinBytes, latin, viewOf } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const SIGNATURE_LENGTH = 8
/** Chunks that change how the pixels look; all others (text, time, Exif, private ones) go. */
const PICTURE_CHUNKS = new Set([
  'IHDR',
  'PLTE',
  'IDAT',
  'IEND',
  'tRNS',
  'gAMA',
  'cHRM',
  'sRGB',
  'iCCP',
  'cICP',
  'sBIT',
  'bKGD',
  'pHYs',
  'acTL',
  'fcTL',
  'fdAT',
])

/**
 * Takes everything out of a PNG but the picture; of Exif only the orientation stays. Data behind
 * the end goes as well.
 * @see W3C PNG (Third Edition), section 5
 */
export function cleanPng(bytes: Uint8Array): { bytes: Uint8Array; orientation: number } {
  const view = viewOf(bytes)
  const kept: Uint8Array[] = []
  let orientation = 1
  let at = SIGNATURE_LENGTH
  while (at + 12 <= bytes.length) {
    const end = Math.min(bytes.length, at + 12 + view.getUint32(at))
    const name = latin(bytes, at + 4, 4)
    if (name === 'eXIf') orientation = readOrientation(bytes.subarray(at + 8, end - 4))
    if (PICTURE_CHUNKS.has(name)) kept.push(bytes.subarray(at, end))
    at = end
    if (name === 'IEND') break
  }
  const [header, ...rest] = kept
  const exif = orientation === 1 ? [] : [pngChunk('eXIf', writeOrientation(orientation))]
  return {
    bytes: joinBytes([
      bytes.subarray(0, SIGNATURE_LENGTH),
      ...(header ? [header] : []),
      ...exif,
      ...rest,
    ]),
    orientation,
  }
}

function pngChunk(name: string, data: Uint8Array): Uint8Array {
  const chunk = new Uint8Array(12 + data.length)
  const view = viewOf(chunk)
  view.setUint32(0, data.length)
  chunk.set(
    [...name].map((c) => c.charCodeAt(0)),
    4,
  )
  chunk.set(data, 8)
  view.setUint32(8 + data.length, crc32(chunk.subarray(4, 8 + data.length)))
  return chunk
}

/** CRC-32 as PNG uses it. @see ISO 3309; W3C PNG annex D */
export function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff
  for (const byte of bytes) {
    crc ^= byte
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1
  }
  return (crc ^ 0xffffffff) >>> 0
}
