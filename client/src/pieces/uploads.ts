import type { Piece } from '@nibquill/contract'
import { useEffect, useSyncExternalStore } from 'react'
import { keepFirst } from '../accounts/handOver'
import { alsoForget } from '../accounts/session'
import { UnreachableError } from '../api/problems'
import { noteSignedOut, queryClient } from '../api/queryClient'
import { Uploader, type Sending } from '../media/uploader'
import { Outbox } from '../outbox/outbox'
import { whileMine } from '../outbox/whileMine'
import type { Tidying } from '@nibquill/core'
import { addPart } from '../parts/partsQueries'
import { Drafts, type Draft } from './drafts'
import { localPiece } from './localPiece'
import {
  changePiece,
  handInPiece,
  keepPiece,
  myPiecesQuery,
  pieceQuery,
  startPiece,
} from './piecesQueries'

const outbox = new Outbox()
/**
 * Pieces that may not have begun at school yet, with their tasks: without a network, or in a page
 * that was closed.
 */
const notStarted = new Map<string, string | null>()

/**
 * The tablet's one uploader. A file is in the outbox before anything else; one that has arrived is
 * hung into its piece.
 */
export const uploader = new Uploader(
  async ({ pieceId, partId, mediaId, name, instead }, signal) => {
    // Starting twice is starting once.
    if (notStarted.has(pieceId)) await startPiece(pieceId, notStarted.get(pieceId) ?? null)
    notStarted.delete(pieceId)
    const piece = await addPart(pieceId, partId, {
      kind: 'photo',
      files: { picture: mediaId },
      name: instead ? '' : name,
      ...(instead ? { instead } : {}),
    })
    // Its pupil has left: nothing of theirs comes back into memory.
    if (signal.aborted) return
    queryClient.setQueryData(pieceQuery(pieceId).queryKey, piece)
    void queryClient.invalidateQueries({ queryKey: myPiecesQuery.queryKey })
  },
  {
    put: ({ partId, mediaId, pieceId, ownerId, kind, name, instead }, file) =>
      outbox.put(
        {
          partId,
          mediaId,
          pieceId,
          ownerId,
          kind,
          name,
          instead,
          taskId: notStarted.get(pieceId) ?? null,
          keptAt: Date.now(),
        },
        file,
      ),
    drop: (partId) => outbox.drop(partId),
  },
  noteSignedOut,
)
const isComing = (pieceId: string): boolean =>
  uploader
    .getSnapshot()
    .some((sending) => sending.pieceId === pieceId && sending.state !== 'refused')

/** Words of drafts on their way, and pieces on their way into the tray. */
export const drafts = new Drafts(
  { put: (draft) => outbox.putDraft(draft), drop: (pieceId) => outbox.dropDraft(pieceId) },
  {
    start: startPiece,
    change: (pieceId, seenVersion, { folderId, ...words }) =>
      changePiece(pieceId, { seenVersion, ...words, ...(folderId ? { folderId } : {}) }),
    handIn: handInPiece,
    isComing,
    onPiece: (piece) => keepPiece(queryClient, piece),
    onFailed: noteSignedOut,
  },
)
uploader.subscribe(() => {
  // The last part has arrived: what waited for it goes into the tray.
  const ready = [...drafts.getSnapshot().values()].some(
    ({ pieceId, handIn, state }) => handIn && state === 'waiting' && !isComing(pieceId),
  )
  if (ready) drafts.retry()
})
keepFirst(() => Promise.all([uploader.settle(), drafts.settle()]))
alsoForget(() => {
  uploader.clear()
  drafts.clear()
})

/** Whether this browser keeps work beyond the life of the page. */
export const keepsWork = (): Promise<boolean> => outbox.works()

/**
 * Sends on what a pupil left in the outbox. One page of this browser at a time; the next takes over
 * when it is closed.
 */
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
      for (const draft of await outbox.listDrafts(ownerId)) {
        if (gone.signal.aborted) return
        drafts.restore(draft)
      }
    }
    void whileMine('nibquill.outbox', gone.signal, bringHome)
    return () => gone.abort()
  }, [ownerId])
}

export const useSendings = (pieceId?: string): readonly Sending[] => {
  const all = useSyncExternalStore(uploader.subscribe, uploader.getSnapshot, uploader.getSnapshot)
  return pieceId === undefined ? all : all.filter((sending) => sending.pieceId === pieceId)
}

export const useDrafts = (): ReadonlyMap<string, Draft> =>
  useSyncExternalStore(drafts.subscribe, drafts.getSnapshot, drafts.getSnapshot)

/** Pieces of which something is on this tablet that the school does not list yet, newest first. */
export function useLocalPieces(listed: readonly { id: string }[]): Piece[] {
  const sendings = useSendings()
  const held = [...new Set([...sendings.map(({ pieceId }) => pieceId), ...useDrafts().keys()])]
  return held
    .filter((id) => !listed.some((piece) => piece.id === id))
    .map((id) => queryClient.getQueryData(pieceQuery(id).queryKey))
    .filter((piece) => piece !== undefined)
    .reverse()
}

/**
 * Keeps the files and sends them, after the piece they belong to; without a network they wait and
 * start it later.
 */
export async function sendPhotos(
  ownerId: string,
  pieceId: string,
  taskId: string | null,
  files: readonly File[],
): Promise<void> {
  notStarted.set(pieceId, taskId)
  const kept = Promise.all(files.map((file) => uploader.add(ownerId, pieceId, file)))
  try {
    queryClient.setQueryData(pieceQuery(pieceId).queryKey, await startPiece(pieceId, taskId))
    notStarted.delete(pieceId)
  } catch (error) {
    if (!(error instanceof UnreachableError)) throw error
    // Until the school can be told, the piece is on this tablet only.
    const key = pieceQuery(pieceId).queryKey
    if (!queryClient.getQueryData(key))
      queryClient.setQueryData(key, localPiece(queryClient, pieceId, taskId) ?? undefined)
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
