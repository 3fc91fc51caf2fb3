import { DomainError } from '../domainError.ts'

/** The bytes of a file, wherever they lie; whoever reads asks for a little at a time. */
export type Source = {
  readonly length: number
  /** The bytes from `from` up to `to`, fewer at the end. */
  read: (from: number, to: number) => Uint8Array
}

/** What is kept of a file: a stretch of it as it stands, or bytes in its place. */
export type Stretch = { from: number; to: number } | Uint8Array

/** No picture alternates so often between what is kept and what goes. */
const MOST_STRETCHES = 10_000

/** A file that lies in memory. */
export const sourceOf = (bytes: Uint8Array): Source => ({
  length: bytes.length,
  read: (from, to) => bytes.subarray(from, to),
})

/** Stretches in order; those that touch become one. */
export class Keeping {
  readonly stretches: Stretch[] = []

  /** @throws DomainError `media/unreadable` for a file made to fill the memory with bits of it */
  keep(from: number, to: number): void {
    const last = this.stretches.at(-1)
    if (last && !(last instanceof Uint8Array) && last.to === from) last.to = to
    else if (to > from) this.#add({ from, to })
  }

  put(bytes: Uint8Array): void {
    if (bytes.length > 0) this.#add(bytes)
  }

  #add(stretch: Stretch): void {
    if (this.stretches.length >= MOST_STRETCHES) throw new DomainError('media/unreadable')
    this.stretches.push(stretch)
  }
}

/** Joins what is kept of a file that lies in memory. */
export function joinStretches(source: Source, kept: readonly Stretch[]): Uint8Array {
  const pieces = kept.map((one) =>
    one instanceof Uint8Array ? one : source.read(one.from, one.to),
  )
  const joined = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0))
  let at = 0
  for (const piece of pieces) {
    joined.set(piece, at)
    at += piece.length
  }
  return joined
}

/** How many bytes a stretch has. */
export const lengthOf = (stretch: Stretch): number =>
  stretch instanceof Uint8Array ? stretch.length : stretch.to - stretch.from

/** The text of `length` bytes at `at`, one character a byte: chunk names and markers. */
export function latin(bytes: Uint8Array, at: number, length: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + length))
}

/** Numbers as they stand in bytes. */
export function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
}
