import { Keeping, latin, viewOf, type Source, type Stretch } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const EOI = 0xd9
const SOS = 0xda
const APP1 = 0xe1
const APP2 = 0xe2
const APP14 = 0xee
const COMMENT = 0xfe
const EXIF_NAME = 'Exif\0\0'
/** Marker, length and the longest name looked at. */
const HEAD_LENGTH = 16
/** Coded data is searched so much at a time. */
const STEP = 64 * 1024

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
export function cleanJpeg(source: Source): { kept: Stretch[]; orientation: number } {
  const picture = new Keeping()
  let orientation = 1
  let at = 2
  let ended: { from: number; to: number } | null = null
  while (at + 4 <= source.length) {
    const head = source.read(at, at + HEAD_LENGTH)
    const marker = head[1]!
    if (head[0] !== 0xff) break
    if (marker === 0xff) {
      at += 1
      continue
    }
    if (standsAlone(marker)) {
      at += 2
      continue
    }
    if (marker === EOI) {
      ended = { from: at, to: at + 2 }
      break
    }
    const end = Math.min(source.length, at + 2 + viewOf(head).getUint16(2))
    if (marker === SOS) {
      const scanEnd = endOfScan(source, end)
      picture.keep(at, scanEnd)
      at = scanEnd
      continue
    }
    if (marker === APP1 && latin(head, 4, 6) === EXIF_NAME)
      orientation = readOrientation(source.read(at + 10, end))
    if (isPicture(head, marker)) picture.keep(at, end)
    at = end
  }
  // The end mark itself may stand in the last two bytes, where no segment fits any more.
  const last = source.read(at, at + 2)
  if (last[0] === 0xff && last[1] === EOI) ended = { from: at, to: at + 2 }
  return { kept: framed(picture, orientation, ended), orientation }
}

/**
 * With the marks of start and end. What a cut-off file lacks is its end mark: with it, every reader
 * shows the part that arrived.
 */
function framed(
  picture: Keeping,
  orientation: number,
  ended: { from: number; to: number } | null,
): Stretch[] {
  const whole = new Keeping()
  whole.keep(0, 2)
  for (const bytes of exifSegment(orientation)) whole.put(bytes)
  for (const stretch of picture.stretches)
    if (!(stretch instanceof Uint8Array)) whole.keep(stretch.from, stretch.to)
  if (ended) whole.keep(ended.from, ended.to)
  else whole.put(Uint8Array.of(0xff, EOI))
  return whole.stretches
}

function isPicture(head: Uint8Array, marker: number): boolean {
  if (marker === COMMENT) return false
  if (!isApplication(marker)) return true
  if (marker === APP2) return latin(head, 4, 12) === 'ICC_PROFILE\0'
  return marker === APP14 && latin(head, 4, 5) === 'Adobe'
}

/** Coded data runs until a marker that is neither a stuffed zero nor a restart. */
function endOfScan(source: Source, from: number): number {
  for (let start = from; start < source.length; start += STEP) {
    // One more, so that a marker across the step is seen.
    const coded = source.read(start, start + STEP + 1)
    for (
      let i = coded.indexOf(0xff);
      i !== -1 && i < STEP && i + 1 < coded.length;
      i = coded.indexOf(0xff, i + 1)
    ) {
      const next = coded[i + 1]!
      if (next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return start + i
    }
  }
  return source.length
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
