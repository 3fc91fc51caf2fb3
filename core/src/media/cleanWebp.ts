import { joinBytes, latin, viewOf } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const RIFF_HEADER_LENGTH = 12
const PICTURE_CHUNKS = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP'])
const HAS_EXIF = 0x08
const HAS_XMP = 0x04

/**
 * Takes everything out of a WebP but the picture; of Exif only the orientation stays.
 * @see RFC 9649, section 2 (container)
 */
export function cleanWebp(bytes: Uint8Array): { bytes: Uint8Array; orientation: number } {
  const view = viewOf(bytes)
  const kept: Uint8Array[] = []
  const riffEnd = Math.min(bytes.length, 8 + view.getUint32(4, true))
  let orientation = 1
  let at = RIFF_HEADER_LENGTH
  while (at + 8 <= riffEnd) {
    const size = view.getUint32(at + 4, true)
    const end = Math.min(riffEnd, at + 8 + size + (size % 2))
    const name = latin(bytes, at, 4)
    if (name === 'EXIF')
      orientation = readOrientation(withoutExifName(bytes.subarray(at + 8, at + 8 + size)))
    if (PICTURE_CHUNKS.has(name)) kept.push(bytes.slice(at, end))
    at = end
  }
  const extended = kept.find((chunk) => latin(chunk, 0, 4) === 'VP8X')
  // Only an extended file can carry Exif, and one without it never said which way up it is.
  const exif =
    extended && orientation !== 1 ? [riffChunk('EXIF', writeOrientation(orientation))] : []
  if (extended) extended[8] = (extended[8]! & ~(HAS_EXIF | HAS_XMP)) | (exif.length ? HAS_EXIF : 0)
  const body = joinBytes([...kept, ...exif])
  const header = bytes.slice(0, RIFF_HEADER_LENGTH)
  viewOf(header).setUint32(4, body.length + 4, true)
  return { bytes: joinBytes([header, body]), orientation }
}

/** Some writers put JPEG's `Exif\0\0` before the block although WebP does not ask for it. */
function withoutExifName(block: Uint8Array): Uint8Array {
  return latin(block, 0, 4) === 'Exif' ? block.subarray(6) : block
}

function riffChunk(name: string, data: Uint8Array): Uint8Array {
  const chunk = new Uint8Array(8 + data.length + (data.length % 2))
  chunk.set([...name].map((c) => c.charCodeAt(0)))
  viewOf(chunk).setUint32(4, data.length, true)
  chunk.set(data, 8)
  return chunk
}
