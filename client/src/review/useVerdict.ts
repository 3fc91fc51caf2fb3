import type { Piece } from '@nibquill/contract'
import { useState } from 'react'
import { toast } from '../kit/Toast'
import { useDecide } from './reviewQueries'
import { strings } from './strings'

export type Verdict = {
  message: string
  setMessage: (message: string) => void
  /** Where it is filed instead; null: where its pupil thought. */
  folderId: string | null
  setFolderId: (folderId: string) => void
  send: (move: 'approve' | 'send-back') => void
  busy: boolean
  error: Error | null
}

/** What a teacher is about to decide on a piece, and deciding it. @param onDone - Then comes the next. */
export function useVerdict(piece: Piece, title: string, onDone: () => void): Verdict {
  const decide = useDecide()
  const [message, setMessage] = useState('')
  const [folderId, setFolderId] = useState<string | null>(null)
  const send = (move: 'approve' | 'send-back') => {
    const filed = move === 'approve' && folderId ? { folderId } : {}
    const said = { move, message: message.trim(), seenVersion: piece.version, ...filed }
    // As a promise: the school may tell of the decision, and what is shown change, before it answers.
    void decide.mutateAsync({ pieceId: piece.id, decision: said }).then(
      () => {
        toast(move === 'approve' ? strings.approved(title) : strings.sentBack(title))
        onDone()
      },
      // Said where the decision is made.
      () => undefined,
    )
  }
  return {
    ...{ message, setMessage, folderId, setFolderId, send },
    ...{ busy: decide.isPending, error: decide.error },
  }
}
