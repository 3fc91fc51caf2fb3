import { Keeping, latin, lengthOf, viewOf, type Source, type Stretch } from './bytes.ts'
import { readOrientation, writeOrientation } from './orientation.ts'

const RIFF_HEADER_LENGTH = 12
const PICTURE_CHUNKS = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP'])
/** As much as a segment of a JPEG holds. */
const MOST_EXIF = 64 * 1024
/** A head of eight bytes and ten of flags and size. */
const MOST_EXTENDED = 18
const HAS_EXIF = 0x08
const HAS_XMP = 0x04

/**
 * Takes everything out of a WebP but the picture; of Exif only the orientation stays.
 * @see RFC 9649, section 2 (container)
 */
export function cleanWebp(source: Source): { kept: Stretch[]; orientation: number } {
  const picture = new Keeping()
  const header = Uint8Array.from(source.read(0, RIFF_HEADER_LENGTH))
  const riffEnd = Math.min(source.length, 8 + viewOf(header).getUint32(4, true))
  let orientation = 1
  let extended: Uint8Array | null = null
  let at = RIFF_HEADER_LENGTH
  while (at + 8 <= riffEnd) {
    const head = source.read(at, at + 8)
    const size = viewOf(head).getUint32(4, true)
    const end = Math.min(riffEnd, at + 8 + size + (size % 2))
    const name = latin(head, 0, 4)
    if (name === 'EXIF')
      orientation = readOrientation(
        withoutExifName(source.read(at + 8, at + 8 + Math.min(size, MOST_EXIF))),
      )
    // Its flags say what else there is, and that changes.
    if (name === 'VP8X' && !extended) {
      extended = Uint8Array.from(source.read(at, Math.min(end, at + MOST_EXTENDED)))
      picture.put(extended)
    } else if (PICTURE_CHUNKS.has(name)) picture.keep(at, end)
    at = end
  }
  // Only an extended file can carry Exif, and one without it never said which way up it is.
  const exif =
    extended && orientation !== 1 ? riffChunk('EXIF', writeOrientation(orientation)) : null
  if (extended) extended[8] = (extended[8]! & ~(HAS_EXIF | HAS_XMP)) | (exif ? HAS_EXIF : 0)
  if (exif) picture.put(exif)
  const body = picture.stretches.reduce((sum, stretch) => sum + lengthOf(stretch), 0)
  viewOf(header).setUint32(4, body + 4, true)
  return { kept: [header, ...picture.stretches], orientation }
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
