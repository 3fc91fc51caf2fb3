import type { ChangePiece, Piece } from '@nibquill/contract'
import { useEffect, useRef, useState } from 'react'
import { useKeepFirst } from '../accounts/handOver'
import { useChangePiece } from './piecesQueries'

type Words = Pick<ChangePiece, 'title' | 'reflection' | 'step'>
const PAUSE_MS = 900

/**
 * Words that save themselves: after a pause, and at once by `save`. While a save is on its way the next waits for it,
 * so that the piece's version is always the one last answered.
 */
export function useDraft(piece: Piece) {
  const change = useChangePiece(piece.id)
  const [words, setWords] = useState<Required<Words>>({ title: piece.title, reflection: piece.reflection, step: piece.step })
  const latest = useRef({ piece, words })
  latest.current = { piece, words }
  const saving = useRef<Promise<unknown>>(Promise.resolve())

  const save = (): Promise<unknown> => {
    saving.current = saving.current
      .catch(() => undefined)
      .then(async () => {
        const { piece: now, words: wanted } = latest.current
        if (now.title === wanted.title.trim() && now.reflection === wanted.reflection.trim() && now.step === wanted.step) return
        latest.current.piece = await change.mutateAsync({ seenVersion: now.version, ...wanted })
      })
    return saving.current
  }
  useKeepFirst(save)
  const { title, reflection, step } = words
  useEffect(() => {
    const timer = setTimeout(() => void save().catch(() => undefined), PAUSE_MS)
    return () => clearTimeout(timer)
    // `save` reads everything it needs when it runs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [title, reflection, step])
  // Leaving is always safe: words of the last moment are kept as well.
  const leave = useRef(save)
  leave.current = save
  useEffect(() => () => void leave.current().catch(() => undefined), [])
  return {
    words,
    write: (more: Words) => setWords((now) => ({ ...now, ...more })),
    save,
    problem: change.error,
    busy: change.isPending,
  }
}
