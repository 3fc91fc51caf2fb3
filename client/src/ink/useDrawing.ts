import type { DrawingPart } from '@nibquill/contract'
import { drawOn } from '@nibquill/core/ink/changes'
import { newInk, type InkDocument } from '@nibquill/core/ink/document'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { v7 as newId } from 'uuid'
import { inkOf, useOutbox } from '../outbox/OutboxContext'
import { inkQuery } from '../parts/inkQuery'
import { usePieceWork } from '../pieces'
import { Drawing } from './drawing'
import { openedDrawings as opened } from './opened'

type Opening = {
  pieceId: string
  partId: string
  /** Null for one that begins with its first line. */
  part: DrawingPart | null
  taskId: string | null
  /** The first line is kept. */
  onBegun: () => void
}

/**
 * The drawing to work on: as the school has it and with what waits here on top, or as it was left
 * here while the school cannot be reached.
 */
export function useDrawing(opening: Opening): { drawing: Drawing | null; error: unknown } {
  const { pieceId, partId, part, taskId, onBegun } = opening
  const work = usePieceWork(pieceId)
  const outbox = useOutbox()
  const queries = useQueryClient()
  const [drawing, setDrawing] = useState(() => (part ? null : begin()))
  const query = useQuery({
    ...inkQuery(part?.files.ink.mediaId ?? ''),
    // Once open, what is drawn here is what counts.
    enabled: part !== null && drawing === null,
  })

  function begin(): Drawing {
    const ink = newInk(newId())
    let begun = false
    const made = new Drawing(ink, (changes) => {
      if (begun) return void work.draw(partId, changes)
      begun = true
      void work.addDrawing(partId, ink, changes, taskId).then(onBegun)
    })
    opened.set(partId, made)
    return made
  }

  const found = query.data ?? (query.isError ? leftHere() : undefined)
  function leftHere(): InkDocument | undefined {
    return opened.get(partId)?.getSnapshot().ink ?? queries.getQueryData(hereKey(partId))
  }
  useEffect(() => {
    if (!found || drawing) return
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
  return { drawing, error: found ? null : query.error }
}

const hereKey = (partId: string) => ['ink', 'here', partId]
