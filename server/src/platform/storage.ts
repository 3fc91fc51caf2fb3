import type { Readable } from 'node:stream'

/**
 * Where files lie: a folder by default; an object store can stand in its place. What lies under a
 * key is never changed, only taken away. Keys are `<hash or id>[-form].<ending>`.
 */
export interface Storage {
  /**
   * Seen by readers whole or not at all.
   * @param content - A `given` file may be gone afterwards; another one is copied.
   */
  put(key: string, content: Content): Promise<void>
  /** null where nothing lies */
  about(key: string): Promise<Stored | null>
  /** All of it at once: for what is small. @throws where nothing lies */
  read(key: string): Promise<Buffer>
  /** Lends it as a file to programs that want one, for so long. @throws where nothing lies */
  withFile<T>(key: string, work: (file: string) => Promise<T>): Promise<T>
  /** Piece by piece. Where nothing lies, the stream fails. @param range - First and last byte. */
  stream(key: string, range?: ByteRange): Promise<Readable>
  /** What is not there is gone already. */
  remove(key: string): Promise<void>
  /** Everything that lies there, in no order. */
  list(): AsyncIterable<{ key: string; storedAt: Date }>
  /** @throws when nothing can be written. */
  check(): Promise<void>
}
export type Content = Uint8Array | { file: string; given?: boolean }
export type Stored = { sizeBytes: number; storedAt: Date }
export type ByteRange = { start: number; end: number }

export const isStorageKey = (key: string): boolean => /^[\w-]+\.\w+$/.test(key)

/** @throws for what could lead out of the place where files lie */
export function refuseOddKeys(key: string): void {
  if (!isStorageKey(key)) throw new Error(`not a storage key: ${key}`)
}
