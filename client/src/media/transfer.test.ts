/// <reference types="node" />
import { createHash, randomBytes } from 'node:crypto'
import { hashOf } from './transfer'

// Against Node's own SHA-256 (FIPS 180-4).
const expected = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** A file of the browser's, as far as hashing reads it. */
const fileOf = (bytes: Uint8Array): Blob =>
  ({
    size: bytes.length,
    arrayBuffer: async () => bytes.slice().buffer,
    slice: (from: number, to: number) => fileOf(bytes.subarray(from, to)),
  }) as unknown as Blob

describe.each([0, 1, 4 * 1024 * 1024, 9_000_001])('a file of %i bytes', (length) => {
  const bytes = new Uint8Array(randomBytes(length))

  test('is hashed by the browser on a safe address', async () => {
    expect(await hashOf(fileOf(bytes))).toBe(expected(bytes))
  })
  test('is hashed in slices where the browser does not', async () => {
    const subtle = Object.getOwnPropertyDescriptor(globalThis, 'crypto')!
    Object.defineProperty(globalThis, 'crypto', { configurable: true, value: {} })
    try {
      expect(await hashOf(fileOf(bytes))).toBe(expected(bytes))
    } finally {
      Object.defineProperty(globalThis, 'crypto', subtle)
    }
  })
})

test('a film is hashed without ever being whole in memory', async () => {
  const bytes = new Uint8Array(65 * 1024 * 1024).fill(7)
  const film = {
    ...fileOf(bytes),
    arrayBuffer: () => Promise.reject(new Error('read whole')),
  } as unknown as Blob
  expect(await hashOf(film)).toBe(expected(bytes))
})
