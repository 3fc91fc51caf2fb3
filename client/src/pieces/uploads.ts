import { useSyncExternalStore } from 'react'
import { keepFirst } from '../accounts/handOver'
import { alsoForget } from '../accounts/session'
import { UnreachableError } from '../api/problems'
import { queryClient } from '../api/queryClient'
import { Uploader, type Sending } from '../media/uploader'
import { addPart, myPiecesQuery, pieceQuery, startPiece } from './piecesQueries'

/** Pieces begun without a network, with their tasks. */
const notStarted = new Map<string, string | null>()

/** The tablet's one uploader. A file that has arrived is hung into its piece. */
export const uploader = new Uploader(async ({ pieceId, partId, mediaId, name }) => {
  // Begun without a network, the piece is not at school yet. Starting twice is starting once.
  if (notStarted.has(pieceId)) await startPiece(pieceId, notStarted.get(pieceId) ?? null)
  notStarted.delete(pieceId)
  queryClient.setQueryData(pieceQuery(pieceId).queryKey, await addPart(pieceId, partId, mediaId, name))
  void queryClient.invalidateQueries({ queryKey: myPiecesQuery.queryKey })
})

keepFirst(() => uploader.settle())
alsoForget(() => uploader.clear())

export const useSendings = (pieceId?: string): readonly Sending[] => {
  const all = useSyncExternalStore(uploader.subscribe, uploader.getSnapshot, uploader.getSnapshot)
  return pieceId === undefined ? all : all.filter((sending) => sending.pieceId === pieceId)
}

/** Starts the piece if it is new and sends the files after it; without a network the files wait and start it later. */
export async function sendPhotos(ownerId: string, pieceId: string, taskId: string | null, files: readonly File[]): Promise<void> {
  try {
    queryClient.setQueryData(pieceQuery(pieceId).queryKey, await startPiece(pieceId, taskId))
  } catch (error) {
    if (!(error instanceof UnreachableError)) throw error
    notStarted.set(pieceId, taskId)
  }
  for (const name of ['pieces', 'tasks']) void queryClient.invalidateQueries({ queryKey: [name] })
  for (const file of files) uploader.add(ownerId, pieceId, file)
}
