import { useEffect, useSyncExternalStore } from 'react'
import { keepFirst } from '../accounts/handOver'
import { alsoForget } from '../accounts/session'
import { UnreachableError } from '../api/problems'
import { queryClient } from '../api/queryClient'
import { Uploader, type Sending } from '../media/uploader'
import { Outbox } from '../outbox/outbox'
import type { Tidying } from '@nibquill/core'
import { addPart } from '../parts/partsQueries'
import { myPiecesQuery, pieceQuery, startPiece } from './piecesQueries'

const outbox = new Outbox()
/** Pieces that may not have begun at school yet, with their tasks: without a network, or in a page that was closed. */
const notStarted = new Map<string, string | null>()

/** The tablet's one uploader. A file is in the outbox before anything else; one that has arrived is hung into its piece. */
export const uploader = new Uploader(
  async ({ pieceId, partId, mediaId, name, instead }, signal) => {
    // Starting twice is starting once.
    if (notStarted.has(pieceId)) await startPiece(pieceId, notStarted.get(pieceId) ?? null)
    notStarted.delete(pieceId)
    const piece = await addPart(pieceId, partId, { mediaId, name: instead ? '' : name, ...(instead ? { instead } : {}) })
    // Its pupil has left: nothing of theirs comes back into memory.
    if (signal.aborted) return
    queryClient.setQueryData(pieceQuery(pieceId).queryKey, piece)
    void queryClient.invalidateQueries({ queryKey: myPiecesQuery.queryKey })
  },
  {
    put: ({ partId, mediaId, pieceId, ownerId, kind, name, instead }, file) =>
      outbox.put(
        { partId, mediaId, pieceId, ownerId, kind, name, instead, taskId: notStarted.get(pieceId) ?? null, keptAt: Date.now() },
        file,
      ),
    drop: (partId) => outbox.drop(partId),
  },
)
keepFirst(() => uploader.settle())
alsoForget(() => uploader.clear())

/** Sends on what a pupil left in the outbox. One page of this browser at a time; the next takes over when it is closed. */
export function useOutbox(ownerId: string | undefined): void {
  useEffect(() => {
    if (!ownerId) return
    const gone = new AbortController()
    const bringHome = async () => {
      for (const line of await outbox.list(ownerId)) {
        const file = await outbox.take(line)
        if (gone.signal.aborted) return
        if (!file) await outbox.drop(line.partId)
        else {
          notStarted.set(line.pieceId, line.taskId)
          uploader.restore(line, file)
        }
      }
    }
    const untilGone = () => new Promise<void>((resolve) => gone.signal.addEventListener('abort', () => resolve(), { once: true }))
    const work = () => bringHome().then(untilGone)
    if (typeof navigator.locks === 'undefined') void work()
    else void navigator.locks.request('nibquill.outbox', { signal: gone.signal }, work).catch(() => undefined)
    return () => gone.abort()
  }, [ownerId])
}

export const useSendings = (pieceId?: string): readonly Sending[] => {
  const all = useSyncExternalStore(uploader.subscribe, uploader.getSnapshot, uploader.getSnapshot)
  return pieceId === undefined ? all : all.filter((sending) => sending.pieceId === pieceId)
}

/** Keeps the files and sends them, after the piece they belong to; without a network they wait and start it later. */
export async function sendPhotos(ownerId: string, pieceId: string, taskId: string | null, files: readonly File[]): Promise<void> {
  notStarted.set(pieceId, taskId)
  const kept = Promise.all(files.map((file) => uploader.add(ownerId, pieceId, file)))
  try {
    queryClient.setQueryData(pieceQuery(pieceId).queryKey, await startPiece(pieceId, taskId))
    notStarted.delete(pieceId)
  } catch (error) {
    if (!(error instanceof UnreachableError)) throw error
  }
  await kept
  for (const name of ['pieces', 'tasks']) void queryClient.invalidateQueries({ queryKey: [name] })
}

/**
 * Keeps and sends a photo tidied from another part, whose place it takes once it is there.
 * @returns the part it will be
 */
export const sendTidied = (
  ownerId: string,
  pieceId: string,
  file: File,
  instead: { partId: string; tidying: Tidying },
): Promise<string> => uploader.add(ownerId, pieceId, file, instead)
