import { Keeping, latin, viewOf, type Source, type Stretch } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const SIGNATURE_LENGTH = 8
/** As much as a segment of a JPEG holds. */
const MOST_EXIF = 64 * 1024
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
export function cleanPng(source: Source): { kept: Stretch[]; orientation: number } {
  const orientation = orientationOf(source)
  const exif = orientation === 1 ? null : pngChunk('eXIf', writeOrientation(orientation))
  const kept = new Keeping()
  kept.keep(0, SIGNATURE_LENGTH)
  let first = true
  for (const { name, from, to } of chunksOf(source)) {
    if (!PICTURE_CHUNKS.has(name)) continue
    kept.keep(from, to)
    // Right behind the header, before what it turns.
    if (first && exif) kept.put(exif)
    first = false
  }
  if (first && exif) kept.put(exif)
  return { kept: kept.stretches, orientation }
}

function orientationOf(source: Source): number {
  let orientation = 1
  for (const { name, from, to } of chunksOf(source))
    if (name === 'eXIf')
      orientation = readOrientation(source.read(from + 8, Math.min(to - 4, from + MOST_EXIF)))
  return orientation
}

function* chunksOf(source: Source): Generator<{ name: string; from: number; to: number }> {
  let from = SIGNATURE_LENGTH
  while (from + 12 <= source.length) {
    const head = source.read(from, from + 8)
    const to = Math.min(source.length, from + 12 + viewOf(head).getUint32(0))
    const name = latin(head, 4, 4)
    yield { name, from, to }
    if (name === 'IEND') return
    from = to
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
