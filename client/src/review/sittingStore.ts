import type { TrayLine } from '@nibquill/contract'
import {
  beginSitting,
  goOnSitting,
  newSince,
  putBackIntoSitting,
  type Sitting,
} from '@nibquill/core/review/sitting'
import { useEffect, useMemo, useSyncExternalStore } from 'react'

type Lines = Sitting<TrayLine>

/** Away from the tray for so long, one begins anew. */
const ENDS_AFTER_MS = 10 * 60_000

/** What a teacher is working through, kept while they look at other pages of theirs. */
let sitting: Lines | null = null
/** Of which classes, and in which order. */
let sittingOf = ''
let pagesIn = 0
let lastSeenMs = 0
/** Decided here, and the school has not said so yet. */
let deciding: ReadonlySet<string> = new Set()
let turn = 0
const listeners = new Set<() => void>()
const tell = () => {
  turn++
  for (const listener of listeners) listener()
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

/** Decided: gone from the list at once. */
export function leaveSitting(pieceId: string): void {
  if (sitting) sitting = { ...sitting, gone: new Set([...sitting.gone, pieceId]) }
  deciding = new Set([...deciding, pieceId])
  tell()
}

/** The school knows of it. */
export function settleInSitting(pieceId: string): void {
  deciding = new Set([...deciding].filter((id) => id !== pieceId))
  tell()
}

/** A decision came to nothing, or was taken back. */
export function returnToSitting(pieceId: string): void {
  if (sitting) sitting = putBackIntoSitting(sitting, pieceId)
  settleInSitting(pieceId)
}

/** Before somebody else sits down. */
export function forgetSitting(): void {
  sitting = null
  deciding = new Set()
}

/**
 * What is worked through, in an order that holds.
 * @param loaded - The tray as far as it was asked for; null before it is here.
 * @param pages - How many pages of it.
 * @param atEnd - What was done is being looked back at: what comes in waits.
 * @param of - Of which classes, and in which order: another one begins anew.
 */
export function useSitting(
  loaded: readonly TrayLine[] | null,
  pages: number,
  atEnd: boolean,
  of: string,
) {
  const now = useSyncExternalStore(subscribe, () => turn)
  const waiting = useMemo(
    () => loaded?.filter(({ id }) => !deciding.has(id)) ?? null,
    // Who decides what is read anew at every turn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [loaded, now],
  )
  const current = useMemo(() => {
    const over = Date.now() - lastSeenMs > ENDS_AFTER_MS || sittingOf !== of
    const before = over ? null : sitting
    if (!waiting) return before
    const through = before?.pieces.every(({ id }) => before.gone.has(id)) ?? true
    if (!before || (through && !atEnd && deciding.size === 0)) return beginSitting(waiting)
    return goOnSitting(before, waiting, pages > pagesIn)
  }, [waiting, pages, atEnd, of])
  useEffect(() => {
    sitting = current
    sittingOf = of
    pagesIn = pages
    lastSeenMs = Date.now()
  }, [current, pages, of])
  return {
    sitting: current ?? beginSitting<TrayLine>([]),
    /** What came meanwhile and is not part of it, by its ids. */
    fresh: current && waiting ? newSince(current, waiting).map(({ id }) => id) : [],
    showFresh: () => {
      sitting = null
      tell()
    },
  }
}
