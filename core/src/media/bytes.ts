/** Joins pieces of bytes into one array. */
export function joinBytes(pieces: readonly Uint8Array[]): Uint8Array {
  const joined = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0))
  let at = 0
  for (const piece of pieces) {
    joined.set(piece, at)
    at += piece.length
  }
  return joined
}

/** The text of `length` bytes at `at`, one character a byte: chunk names and markers. */
export function latin(bytes: Uint8Array, at: number, length: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + length))
}

export function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
}
