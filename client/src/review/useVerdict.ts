import type { Piece } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { codeOf, detailsOf, sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { sendVoice } from '../media/sendVoice'
import { pieceQuery } from '../pieces'
import { useBinHandedIn, useDecide, useRestoreHandedIn, useTakeBack } from './reviewQueries'
import { leaveSitting, returnToSitting, settleInSitting } from './sittingStore'
import { keepUnsent, NOTHING_UNSENT, unsentOf, type Unsent } from './unsentWords'
import { t } from './words'

/** How long a decision can be taken back by a tap. */
export const UNDO_STANDS_MS = 10_000

export type Verdict = Unsent & {
  /** `folderId`: where it is filed instead; null: where its pupil thought. */
  change: (more: Partial<Unsent>) => void
  send: (move: 'approve' | 'send-back') => void
  /** Into the bin, as something handed in by mistake. */
  throwAway: () => void
}

/** Something done to the piece on the desk, after which it lies there no more. */
type Leaving<Done> = {
  says: string
  act: () => Promise<Done>
  undo: (done: Done) => Promise<unknown>
  /** It lies there again: what was typed does as well. */
  onAgain?: () => void
}

/**
 * The piece leaves the desk before the school answers, the next one comes at once, and for a while
 * there is a way back. What comes to nothing is said, and the piece lies in the tray again.
 */
function useLeaving(
  piece: Piece,
  title: string,
  onDone: (also: () => void) => void,
  onBack: () => void,
) {
  const queries = useQueryClient()
  const left = useRef(false)
  return <Done>({ says, act, undo, onAgain }: Leaving<Done>) => {
    // A key that repeats, a second tap: once.
    if (left.current) return
    left.current = true
    const about = { name: piece.pupil.firstName, title }
    const again = () => {
      returnToSitting(piece.id)
      onAgain?.()
    }
    const done = act()
    const takeBack = async () => {
      await undo(await done)
      // As it stands now: what is decided on it next is decided on that.
      await queries.fetchQuery({ ...pieceQuery(piece.id), staleTime: 0 }).catch(() => undefined)
      again()
      onBack()
    }
    const gone = () => {
      leaveSitting(piece.id)
      toast(says, {
        undo: () => void takeBack().catch((error: unknown) => toast(sentenceOf(error))),
        standsMs: UNDO_STANDS_MS,
      })
      done.then(
        () => settleInSitting(piece.id),
        (error: unknown) => {
          again()
          toast(t('notDecided', { ...about, why: whyNot(error) }), { standsMs: UNDO_STANDS_MS })
        },
      )
    }
    // It may come to nothing before anybody listens.
    done.catch(() => undefined)
    onDone(gone)
  }
}

/**
 * What a teacher is about to decide on a piece, and deciding it: the next one comes at once, and
 * the decision can be taken back for a while.
 * @param onDone - Then comes the next; what it is handed is done once that is on screen.
 * @param onBack - It was taken back, and lies on the desk again.
 */
export function useVerdict(
  piece: Piece,
  title: string,
  onDone: (also: () => void) => void,
  onBack: () => void,
): Verdict {
  const decide = useDecide()
  const takeBack = useTakeBack()
  const bin = useBinHandedIn()
  const restore = useRestoreHandedIn()
  const leave = useLeaving(piece, title, onDone, onBack)
  const [unsent, setUnsent] = useState(() => unsentOf(piece.id))
  const change = (more: Partial<Unsent>) => {
    const now = { ...unsent, ...more }
    setUnsent(now)
    keepUnsent(piece.id, now)
  }
  const about = { name: piece.pupil.firstName, title }
  const seenVersion = piece.version
  const send = (move: 'approve' | 'send-back') => {
    const { message, said, folderId, because } = unsent
    const filed = move === 'approve' && folderId ? { folderId, because: because.trim() } : {}
    leave({
      says: move === 'approve' ? t('approved', about) : t('sentBack', about),
      act: async () => {
        keepUnsent(piece.id, NOTHING_UNSENT)
        const spoken = said ? { voiceId: await sendVoice(said.file) } : {}
        return decide.mutateAsync({
          pieceId: piece.id,
          decision: { move, message: message.trim(), seenVersion, ...filed, ...spoken },
        })
      },
      undo: ({ version }) => takeBack.mutateAsync({ pieceId: piece.id, seenVersion: version }),
      onAgain: () => keepUnsent(piece.id, unsent),
    })
  }
  const throwAway = () =>
    leave({
      says: t('binned', about),
      act: () => bin.mutateAsync({ pieceId: piece.id, seenVersion }),
      undo: () => restore.mutateAsync({ pieceId: piece.id }),
    })
  return { ...unsent, change, send, throwAway }
}

/** Who was first is said only where somebody was. */
function whyNot(error: unknown): string {
  if (codeOf(error) !== 'piece/stale') return sentenceOf(error)
  const { state } = detailsOf(error)
  return state === 'draft' || state === 'submitted' ? t('takenOut') : t('otherWasFirst')
}
