import { DomainError, fault } from '@nibquill/core'
import { validate as isUuid } from 'uuid'

/** Keyset cursors: the sort keys of the last row of a page, opaque to clients. */
export type Cursor = { at: string; id: string }

/** As `Date.toISOString` writes it. */
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/

export const writeCursor = (cursor: Cursor): string =>
  Buffer.from(JSON.stringify([cursor.at, cursor.id])).toString('base64url')

/**
 * @returns null for none
 * @throws DomainError `request/invalid` for one that is damaged, so that no list begins again in
 *   its middle
 */
export function readCursor(text: string | undefined): Cursor | null {
  if (!text) return null
  const [at, id] = parse(Buffer.from(text, 'base64url').toString())
  if (
    typeof at !== 'string' ||
    typeof id !== 'string' ||
    !MOMENT.test(at) ||
    Number.isNaN(Date.parse(at)) ||
    !isUuid(id)
  )
    throw new DomainError('request/invalid', {
      fields: { after: [fault('damaged-place')] },
    })
  return { at, id }
}

function parse(text: string): unknown[] {
  try {
    const found: unknown = JSON.parse(text)
    return Array.isArray(found) ? (found as unknown[]) : []
  } catch {
    return []
  }
}
