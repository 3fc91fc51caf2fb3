import { Keeping, latin, type Source, type Stretch } from './bytes.ts'

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
export function cleanGif(source: Source): { kept: Stretch[]; orientation: number } {
  const kept = new Keeping()
  let at = Math.min(source.length, 13 + colourTableLength(byteAt(source, 10)))
  kept.keep(0, at)
  while (at < source.length && byteAt(source, at) !== TRAILER) {
    const start = at
    const head = source.read(start, start + 14)
    if (head[0] === IMAGE) at = endOfBlocks(source, at + 11 + colourTableLength(head[9] ?? 0))
    else if (head[0] === EXTENSION) at = endOfBlocks(source, at + 2)
    else break
    if (isPicture(head)) kept.keep(start, at)
  }
  kept.put(Uint8Array.of(TRAILER))
  return { kept: kept.stretches, orientation: 1 }
}

function isPicture(head: Uint8Array): boolean {
  if (head[0] === IMAGE) return true
  const label = head[1]
  return label === GRAPHIC_CONTROL || (label === APPLICATION && LOOPING.has(latin(head, 3, 11)))
}

const byteAt = (source: Source, at: number) => source.read(at, at + 1)[0] ?? 0
const colourTableLength = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)

/** Data stands in sub-blocks, each led by its length, closed by an empty one. */
function endOfBlocks(source: Source, from: number): number {
  let at = from
  while (at < source.length) {
    const length = byteAt(source, at)
    if (length === 0) break
    at += 1 + length
  }
  return Math.min(source.length, at + 1)
}
