import type { Recorded } from '../device/useRecorded'

/**
 * What a teacher has begun to say to a piece, written or spoken, and where it shall go instead: it
 * waits with it.
 */
export type Unsent = {
  message: string
  said: Recorded | null
  folderId: string | null
  /** Why there. */
  because: string
}

export const NOTHING_UNSENT: Unsent = { message: '', said: null, folderId: null, because: '' }
const unsent = new Map<string, Unsent>()

export const unsentOf = (pieceId: string): Unsent => unsent.get(pieceId) ?? NOTHING_UNSENT

export function keepUnsent(pieceId: string, words: Unsent): void {
  const { message, said, folderId } = words
  if (message === '' && said === null && folderId === null) unsent.delete(pieceId)
  else unsent.set(pieceId, words)
}

export const forgetUnsent = (): void => unsent.clear()
