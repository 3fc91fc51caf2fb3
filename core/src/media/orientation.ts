import { viewOf } from './bytes.ts'

const ORIENTATION_TAG = 0x0112
const SHORT = 3

/**
 * Reads the orientation (1 to 8) out of a TIFF block as cameras write it into pictures.
 * @param tiff - From the byte-order mark `II` or `MM` on.
 * @returns 1 (upright) when there is none or the block is damaged.
 * @see Exif 2.32, CIPA DC-008, section 4.6.4
 */
export function readOrientation(tiff: Uint8Array): number {
  if (tiff.length < 14) return 1
  const view = viewOf(tiff)
  const little = view.getUint16(0) === 0x4949
  if (!little && view.getUint16(0) !== 0x4d4d) return 1
  const directory = view.getUint32(4, little)
  if (directory + 2 > tiff.length) return 1
  const entries = view.getUint16(directory, little)
  for (let i = 0; i < entries; i++) {
    const at = directory + 2 + i * 12
    if (at + 12 > tiff.length) return 1
    if (
      view.getUint16(at, little) === ORIENTATION_TAG &&
      view.getUint16(at + 2, little) === SHORT
    ) {
      const value = view.getUint16(at + 8, little)
      return value >= 1 && value <= 8 ? value : 1
    }
  }
  return 1
}

/** A TIFF block that says which way up the picture is, and nothing else. 26 bytes, big-endian. */
export function writeOrientation(orientation: number): Uint8Array {
  const tiff = new Uint8Array(26)
  const view = viewOf(tiff)
  view.setUint32(0, 0x4d4d002a)
  view.setUint32(4, 8)
  view.setUint16(8, 1)
  view.setUint16(10, ORIENTATION_TAG)
  view.setUint16(12, SHORT)
  view.setUint32(14, 1)
  view.setUint16(18, orientation)
  return tiff
}
