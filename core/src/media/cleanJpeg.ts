import { joinBytes, latin, viewOf } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const SOI = 0xd8
const EOI = 0xd9
const SOS = 0xda
const APP1 = 0xe1
const APP2 = 0xe2
const APP14 = 0xee
const COMMENT = 0xfe
const EXIF_NAME = 'Exif\0\0'

const isApplication = (marker: number) => marker >= 0xe0 && marker <= 0xef
const standsAlone = (marker: number) => marker === 0x01 || (marker >= 0xd0 && marker <= 0xd7)

/**
 * Takes everything out of a JPEG but the picture: position, time, device, maker notes, previews,
 * comments, and whatever
 * hangs behind the end. The coded picture is copied byte for byte. Colour profile (ICC) and Adobe's
 * colour marker stay,
 * since pixels mean something else without them; of Exif only the orientation stays.
 * A picture that stops half-way is cleaned as far as it goes.
 * @see ITU-T T.81 annex B (markers)
 */
export function cleanJpeg(bytes: Uint8Array): { bytes: Uint8Array; orientation: number } {
  const view = viewOf(bytes)
  const kept: Uint8Array[] = []
  let orientation = 1
  let at = 2
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1]!
    if (marker === 0xff) {
      at += 1
      continue
    }
    if (standsAlone(marker)) {
      at += 2
      continue
    }
    if (marker === EOI) break
    const end = Math.min(bytes.length, at + 2 + view.getUint16(at + 2))
    if (marker === SOS) {
      const scanEnd = endOfScan(bytes, end)
      kept.push(bytes.subarray(at, scanEnd))
      at = scanEnd
      continue
    }
    if (marker === APP1 && latin(bytes, at + 4, 6) === EXIF_NAME)
      orientation = readOrientation(bytes.subarray(at + 10, end))
    if (isPicture(bytes, marker, at)) kept.push(bytes.subarray(at, end))
    at = end
  }
  // What a cut-off file lacks is its end mark: with it, every reader shows the part that arrived.
  return {
    bytes: joinBytes([
      Uint8Array.of(0xff, SOI),
      ...exifSegment(orientation),
      ...kept,
      Uint8Array.of(0xff, EOI),
    ]),
    orientation,
  }
}

function isPicture(bytes: Uint8Array, marker: number, at: number): boolean {
  if (marker === COMMENT) return false
  if (!isApplication(marker)) return true
  if (marker === APP2) return latin(bytes, at + 4, 12) === 'ICC_PROFILE\0'
  return marker === APP14 && latin(bytes, at + 4, 5) === 'Adobe'
}

/** Coded data runs until a marker that is neither a stuffed zero nor a restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  let at = bytes.indexOf(0xff, from)
  while (at !== -1 && at + 1 < bytes.length) {
    const next = bytes[at + 1]!
    if (next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return at
    at = bytes.indexOf(0xff, at + 1)
  }
  return bytes.length
}

function exifSegment(orientation: number): Uint8Array[] {
  if (orientation === 1) return []
  const tiff = writeOrientation(orientation)
  const head = Uint8Array.of(
    0xff,
    APP1,
    0,
    2 + EXIF_NAME.length + tiff.length,
    ...[...EXIF_NAME].map((c) => c.charCodeAt(0)),
  )
  return [head, tiff]
}
