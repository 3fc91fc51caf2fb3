/** Keyset cursors: the sort keys of the last row of a page, opaque to clients. */
export type Cursor = { at: string; id: string }

export const writeCursor = (cursor: Cursor): string => Buffer.from(JSON.stringify([cursor.at, cursor.id])).toString('base64url')

/** @returns null for none, and for one that is damaged: the list then starts again. */
export function readCursor(text: string | undefined): Cursor | null {
  if (!text) return null
  try {
    const [at, id] = JSON.parse(Buffer.from(text, 'base64url').toString()) as unknown[]
    const usable = typeof at === 'string' && typeof id === 'string' && !Number.isNaN(Date.parse(at)) && /^[0-9a-f-]{36}$/.test(id)
    return usable ? { at, id } : null
  } catch {
    return null
  }
}
