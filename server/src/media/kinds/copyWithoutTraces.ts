import type { Source, Stretch } from '@nibquill/core/media/bytes'
import { removeTraces, type PictureType } from '@nibquill/core/media/removeTraces'
import { closeSync, fstatSync, openSync, readSync } from 'node:fs'
import { open } from 'node:fs/promises'

/** What is read at once: cleaning asks for a few bytes here and there, mostly close together. */
const WINDOW = 256 * 1024

/**
 * Writes a picture anew without what tells of place, time and device; never more of it in memory
 * than a window.
 * @param into - Written only where something goes.
 * @returns the file to keep: `into`, or `file` itself where there was nothing to take out
 * @throws DomainError `media/unreadable` for a file made to fill the memory
 */
export async function copyWithoutTraces(
  file: string,
  type: PictureType,
  into: string,
): Promise<string> {
  const descriptor = openSync(file, 'r')
  try {
    const source = windowOn(descriptor)
    const { kept } = removeTraces(source, type)
    const [only] = kept
    const untouched =
      kept.length === 1 &&
      !(only instanceof Uint8Array) &&
      only!.from === 0 &&
      only!.to === source.length
    if (untouched) return file
    await write(source, kept, into)
    return into
  } finally {
    closeSync(descriptor)
  }
}

/** A file as the cleaning reads it. */
function windowOn(descriptor: number): Source {
  const { size: length } = fstatSync(descriptor)
  let held = Buffer.alloc(0)
  let heldFrom = 0
  return {
    length,
    read(from, to) {
      const end = Math.max(from, Math.min(to, length))
      if (from < heldFrom || end > heldFrom + held.length) {
        const fresh = Buffer.alloc(
          Math.max(0, Math.min(length - from, Math.max(WINDOW, end - from))),
        )
        held = fresh.subarray(0, readSync(descriptor, fresh, 0, fresh.length, from))
        heldFrom = from
      }
      return held.subarray(from - heldFrom, end - heldFrom)
    },
  }
}

async function write(source: Source, kept: readonly Stretch[], into: string): Promise<void> {
  const out = await open(into, 'w')
  try {
    for (const stretch of kept) {
      if (stretch instanceof Uint8Array) {
        await out.write(stretch)
        continue
      }
      for (let at = stretch.from; at < stretch.to; at += WINDOW)
        await out.write(source.read(at, Math.min(stretch.to, at + WINDOW)))
    }
  } finally {
    await out.close()
  }
}
