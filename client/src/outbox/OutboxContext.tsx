import type { InkChange } from '@nibquill/core/ink/changes'
import type { Talk } from '@nibquill/core/ink/talk'
import { createContext, useContext, useEffect, useMemo, useSyncExternalStore } from 'react'
import type { Outbox, Waiting } from './outbox'
import { whileMine } from './whileMine'

const Context = createContext<Outbox | null>(null)

/** Hands the tablet's one outbox down; tests hand down their own. */
export const OutboxProvider = Context.Provider

export function useOutbox(): Outbox {
  const outbox = useContext(Context)
  if (!outbox) throw new Error('no outbox was handed down')
  return outbox
}

/** What waits for whoever is here, of one piece or of all, in the order it was wanted. */
export function useWaiting(pieceId?: string): readonly Waiting[] {
  const outbox = useOutbox()
  const all = useSyncExternalStore(outbox.subscribe, outbox.getSnapshot, outbox.getSnapshot)
  return useMemo(
    () => (pieceId === undefined ? all : all.filter(({ intent }) => intent.pieceId === pieceId)),
    [all, pieceId],
  )
}

/** Everything that waits; nothing where nobody makes anything. */
function useWhateverWaits(): readonly Waiting[] {
  const outbox = useContext(Context)
  return useSyncExternalStore(
    outbox?.subscribe ?? subscribeToNothing,
    outbox?.getSnapshot ?? getNothing,
    outbox?.getSnapshot ?? getNothing,
  )
}

const NOTHING: readonly InkChange[] = []
/** What was drawn on one drawing and waits here, in its order. */
export function useWaitingInk(partId: string): readonly InkChange[] {
  const all = useWhateverWaits()
  return useMemo(() => {
    const changes = inkOf(all, partId)
    return changes.length > 0 ? changes : NOTHING
  }, [all, partId])
}

/** A talk-through that waits here; null where the school has it. */
export function useWaitingTalk(partId: string): Talk | null {
  const all = useWhateverWaits()
  return useMemo(() => {
    for (const { intent } of all)
      if (intent.kind === 'add-part' && intent.partId === partId && intent.part.kind === 'talk')
        return intent.part.talk
    return null
  }, [all, partId])
}

const subscribeToNothing = () => () => undefined
const NO_LINES: readonly Waiting[] = []
const getNothing = () => NO_LINES
export const inkOf = (lines: readonly Waiting[], partId: string): InkChange[] =>
  lines.flatMap(({ intent }) =>
    intent.kind === 'ink' && intent.partId === partId ? intent.changes : [],
  )

/**
 * Sends on what a pupil left in the outbox. One page of this browser at a time; the next takes over
 * when it is closed.
 */
export function useBringHome(ownerId: string | undefined): void {
  const outbox = useOutbox()
  useEffect(() => {
    if (!ownerId) return
    const gone = new AbortController()
    void whileMine('nibquill.outbox', gone.signal, () => outbox.restore(ownerId, gone.signal))
    return () => gone.abort()
  }, [outbox, ownerId])
}
