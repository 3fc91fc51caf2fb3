import type { Piece } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { codeOf, detailsOf, sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { sendVoice } from '../media/sendVoice'
import { useDecide, useTakeBack } from './reviewQueries'
import { leaveSitting, returnToSitting, settleInSitting } from './sittingStore'
import { keepUnsent, NOTHING_UNSENT, unsentOf, type Unsent } from './unsentWords'
import { t } from './words'

/** How long a decision can be taken back by a tap. */
export const UNDO_STANDS_MS = 10_000

export type Verdict = Unsent & {
  /** `folderId`: where it is filed instead; null: where its pupil thought. */
  change: (more: Partial<Unsent>) => void
  send: (move: 'approve' | 'send-back') => void
}

/**
 * What a teacher is about to decide on a piece, and deciding it: the next one comes at once, and
 * the decision can be taken back for a while.
 * @param onDone - Then comes the next.
 * @param onBack - It was taken back, and lies on the desk again.
 */
export function useVerdict(
  piece: Piece,
  title: string,
  onDone: () => void,
  onBack: () => void,
): Verdict {
  const queries = useQueryClient()
  const decide = useDecide()
  const takeBack = useTakeBack()
  const [unsent, setUnsent] = useState(() => unsentOf(piece.id))
  const sent = useRef(false)
  const change = (more: Partial<Unsent>) => {
    const now = { ...unsent, ...more }
    setUnsent(now)
    keepUnsent(piece.id, now)
  }
  const send = (move: 'approve' | 'send-back') => {
    // A key that repeats, a second tap: one decision.
    if (sent.current) return
    sent.current = true
    const { message, said, folderId } = unsent
    const filed = move === 'approve' && folderId ? { folderId } : {}
    const about = { name: piece.pupil.firstName, title }
    const comesBack = () => {
      returnToSitting(piece.id)
      keepUnsent(piece.id, unsent)
    }
    leaveSitting(piece.id)
    keepUnsent(piece.id, NOTHING_UNSENT)
    // As a promise: the piece leaves the desk before the school answers.
    const decided = (async () => {
      const spoken = said ? { voiceId: await sendVoice(said.file) } : {}
      return decide.mutateAsync({
        pieceId: piece.id,
        decision: {
          move,
          message: message.trim(),
          seenVersion: piece.version,
          ...filed,
          ...spoken,
        },
      })
    })()
    const undo = async () => {
      const { version } = await decided
      await takeBack.mutateAsync({ pieceId: piece.id, seenVersion: version })
      comesBack()
      onBack()
    }
    toast(move === 'approve' ? t('approved', about) : t('sentBack', about), {
      undo: () => void undo().catch((error: unknown) => toast(sentenceOf(error))),
      standsMs: UNDO_STANDS_MS,
    })
    onDone()
    decided.then(
      () => settleInSitting(piece.id),
      async (error: unknown) => {
        comesBack()
        await queries.invalidateQueries({ queryKey: ['review', 'tray'] })
        toast(t('notDecided', { ...about, why: whyNot(error) }), { standsMs: UNDO_STANDS_MS })
      },
    )
  }
  return { ...unsent, change, send }
}

/** Who was first is said only where somebody was. */
function whyNot(error: unknown): string {
  if (codeOf(error) !== 'piece/stale') return sentenceOf(error)
  const { state } = detailsOf(error)
  return state === 'draft' || state === 'submitted' ? t('takenOut') : t('otherWasFirst')
}
