import { joinBytes, latin } from './bytes.ts'

const EXTENSION = 0x21
const IMAGE = 0x2c
const TRAILER = 0x3b
const GRAPHIC_CONTROL = 0xf9
const APPLICATION = 0xff
const LOOPING = new Set(['NETSCAPE2.0', 'ANIMEXTS1.0'])

/**
 * Takes comments, plain texts and foreign application data (XMP among them) out of a GIF; frames,
 * timing and looping stay.
 * @see GIF89a specification, sections 17 to 27
 */
export function cleanGif(bytes: Uint8Array): { bytes: Uint8Array; orientation: number } {
  let at = 13 + colourTableLength(bytes[10] ?? 0)
  const kept = [bytes.subarray(0, at)]
  while (at < bytes.length && bytes[at] !== TRAILER) {
    const start = at
    if (bytes[at] === IMAGE)
      at = endOfBlocks(bytes, at + 11 + colourTableLength(bytes[at + 9] ?? 0))
    else if (bytes[at] === EXTENSION) at = endOfBlocks(bytes, at + 2)
    else break
    if (isPicture(bytes, start)) kept.push(bytes.subarray(start, at))
  }
  return { bytes: joinBytes([...kept, Uint8Array.of(TRAILER)]), orientation: 1 }
}

function isPicture(bytes: Uint8Array, start: number): boolean {
  if (bytes[start] === IMAGE) return true
  const label = bytes[start + 1]
  return (
    label === GRAPHIC_CONTROL || (label === APPLICATION && LOOPING.has(latin(bytes, start + 3, 11)))
  )
}

const colourTableLength = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)

/** Data stands in sub-blocks, each led by its length, closed by an empty one. */
function endOfBlocks(bytes: Uint8Array, from: number): number {
  let at = from
  while (at < bytes.length && bytes[at] !== 0) at += 1 + bytes[at]!
  return Math.min(bytes.length, at + 1)
}
