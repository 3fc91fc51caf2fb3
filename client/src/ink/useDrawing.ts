import type { DrawingPart, Part } from '@nibquill/contract'
import { drawOn, type InkChange } from '@nibquill/core/ink/changes'
import { newInk, type InkDocument } from '@nibquill/core/ink/document'
import { copyOfStarter } from '@nibquill/core/ink/starter'
import { notifyManager, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { v7 as newId } from 'uuid'
import { inkOf, useOutbox } from '../outbox/OutboxContext'
import { inkQuery } from '../parts/inkQuery'
import { codeOf } from '../kit/problems'
import { pieceQuery, usePieceWork } from '../pieces'
import { Drawing } from './drawing'
import { openedDrawings as opened } from './opened'
import { inkOver, layUnder } from './over'

type Opening = {
  pieceId: string
  partId: string
  /** Null for one that begins with its first line. */
  part: DrawingPart | null
  taskId: string | null
  /** A photo that a new one is drawn on. */
  over: Part | null
  /** The sheet of its task, which a new one is a copy of. */
  starter: { mediaId: string } | null
  /** The first line is kept. */
  onBegun: () => void
}

/**
 * The drawing to work on: as the school has it and with what waits here on top, or as it was left
 * here while the school cannot be reached.
 */
export function useDrawing(opening: Opening): {
  drawing: Drawing | null
  error: unknown
  tryAgain: () => void
} {
  const { pieceId, partId, part, taskId, over, starter, onBegun } = opening
  const work = usePieceWork(pieceId)
  const outbox = useOutbox()
  const queries = useQueryClient()
  const [drawing, setDrawing] = useState(() =>
    part || starter ? null : begin(over?.kind === 'photo' ? inkOver(over) : newInk(newId())),
  )
  const askedAnew = useAskedAnew(pieceId, part !== null)
  const mediaId = part?.files.ink.mediaId ?? starter?.mediaId ?? ''
  const query = useQuery({
    ...inkQuery(mediaId),
    // Once open, what is drawn here is what counts.
    enabled: mediaId !== '' && drawing === null && askedAnew,
  })
  const lookedAnew = useLookedAnew(pieceId, mediaId, query.error)

  function begin(ink: InkDocument): Drawing {
    const photo = over?.kind === 'photo' ? over : null
    let begun = false
    const made = new Drawing(ink, (changes) => {
      if (begun) return void work.draw(partId, changes)
      begun = true
      const { bare, pictures } = apart(ink)
      void work.addDrawing(partId, bare, [...pictures, ...changes], taskId).then(onBegun)
    })
    opened.set(partId, made)
    if (photo) made.act(layUnder(photo, ink.sheets[0]!))
    return made
  }

  // What is known of it already may be older than what the school has.
  const found = askedAnew ? (query.data ?? (query.isError ? leftHere() : undefined)) : undefined
  function leftHere(): InkDocument | undefined {
    return opened.get(partId)?.getSnapshot().ink ?? queries.getQueryData(hereKey(partId))
  }
  useEffect(() => {
    if (!found || drawing) return
    if (!part) return setDrawing(begin(copyOfStarter(found, mediaId)))
    const ink = drawOn(found, inkOf(outbox.getSnapshot(), partId))
    const before = opened.get(partId)
    const now = before ?? new Drawing(ink, (changes) => void work.draw(partId, changes))
    before?.lay(ink)
    opened.set(partId, now)
    setDrawing(now)
    // Opened once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [found, drawing])
  // For the next time, should the school be out of reach then.
  useEffect(() => {
    if (!drawing) return
    const leave = () => {
      queries.setQueryDefaults(hereKey(partId), { gcTime: Infinity })
      queries.setQueryData(hereKey(partId), drawing.getSnapshot().ink)
    }
    window.addEventListener('pagehide', leave)
    document.addEventListener('visibilitychange', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      document.removeEventListener('visibilitychange', leave)
      leave()
    }
  }, [drawing, partId, queries])
  return {
    drawing,
    error: found || !lookedAnew ? null : query.error,
    tryAgain: () => void query.refetch(),
  }
}

/** The school is asked for so long what became of a piece, before the drawing opens as it is known here. */
const PATIENCE_MS = 8000

/**
 * What another tablet drew is in another file by now: the piece is asked for anew before a drawing
 * of it opens. Without a network it opens as it is known here.
 */
function useAskedAnew(pieceId: string, begun: boolean): boolean {
  const queries = useQueryClient()
  const [asked, setAsked] = useState(!begun || !navigator.onLine)
  useEffect(() => {
    if (asked) return
    const timer = setTimeout(() => setAsked(true), PATIENCE_MS)
    const { queryKey } = pieceQuery(pieceId)
    // After whoever shows the piece has been told what it is by now.
    const done = () => notifyManager.schedule(() => setAsked(true))
    void queries.refetchQueries({ queryKey }).finally(done)
    return () => clearTimeout(timer)
  }, [asked, pieceId, queries])
  return asked
}

/**
 * Ink that was drawn on elsewhere is gone under its id: the piece is asked for anew before anything
 * is said.
 * @returns whether it was, or need not be
 */
function useLookedAnew(pieceId: string, mediaId: string, error: unknown): boolean {
  const queries = useQueryClient()
  const [lookedFor, setLookedFor] = useState('')
  const gone = codeOf(error) === 'media/not-found' && lookedFor !== mediaId
  useEffect(() => {
    if (!gone) return
    const { queryKey } = pieceQuery(pieceId)
    void queries.refetchQueries({ queryKey }).finally(() => setLookedFor(mediaId))
  }, [gone, pieceId, mediaId, queries])
  return !gone
}

const hereKey = (partId: string) => ['ink', 'here', partId]

/**
 * A drawing as it can be sent by itself, and its pictures, which are laid on what hangs on a piece
 * already.
 */
function apart(ink: InkDocument): { bare: InkDocument; pictures: InkChange[] } {
  const pictures = ink.sheets.flatMap(({ id: sheetId, things }) =>
    things
      .flatMap((thing, i): InkChange[] =>
        thing.kind === 'picture'
          ? [{ kind: 'put', sheetId, things: [thing], below: things[i + 1]?.id ?? null }]
          : [],
      )
      .reverse(),
  )
  const sheets = ink.sheets.map((sheet) => ({
    ...sheet,
    things: sheet.things.filter(({ kind }) => kind !== 'picture'),
  }))
  return { bare: { ...ink, sheets }, pictures }
}
