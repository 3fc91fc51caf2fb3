/** What a teacher has begun to say to a piece, and where it shall go instead: it waits with it. */
export type Unsent = { message: string; folderId: string | null }

const NOTHING: Unsent = { message: '', folderId: null }
const unsent = new Map<string, Unsent>()

export const unsentOf = (pieceId: string): Unsent => unsent.get(pieceId) ?? NOTHING

export function keepUnsent(pieceId: string, words: Unsent): void {
  if (words.message === '' && words.folderId === null) unsent.delete(pieceId)
  else unsent.set(pieceId, words)
}

export const forgetUnsent = (): void => unsent.clear()
