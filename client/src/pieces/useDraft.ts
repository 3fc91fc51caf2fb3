import type { Piece } from '@nibquill/contract'
import { useEffect, useRef, useState } from 'react'
import { useKeepFirst } from '../accounts/handOver'
import { useSession } from '../accounts/session'
import type { Words } from '../outbox/outbox'
import { wordsOf } from './drafts'
import { drafts, useDrafts } from './uploads'

type Typed = Pick<Words, 'title' | 'reflection' | 'step'>
const PAUSE_MS = 900

/** What the outbox needs to know of a piece whose words change. */
export function useWriting(piece: Piece) {
  const session = useSession()
  // Whoever opened the screen writes it, also when their session ends while words are still to be
  // kept.
  const [me] = useState(session.data?.person?.id ?? '')
  // The base is how the piece stood when this screen first showed it; the outbox keeps an older one
  // where it has it.
  const [base] = useState(() => wordsOf(piece))
  const draft = useDrafts().get(piece.id)
  return {
    draft,
    write: (change: Partial<Words>, options: { handIn?: boolean } = {}) =>
      drafts.write(
        {
          pieceId: piece.id,
          ownerId: me,
          taskId: piece.task?.id ?? null,
          base: draft?.base ?? base,
        },
        change,
        options,
      ),
  }
}

/** Words that save themselves: after a pause, at once by `save`, and when one leaves. */
export function useDraft(piece: Piece) {
  const { draft, write } = useWriting(piece)
  const [words, setWords] = useState<Typed>({
    title: piece.title,
    reflection: piece.reflection,
    step: piece.step,
  })
  const latest = useRef(words)
  latest.current = words
  const kept = useRef(words)

  const save = async (): Promise<void> => {
    const { title, reflection, step } = latest.current
    const before = kept.current
    if (title === before.title && reflection === before.reflection && step === before.step) return
    kept.current = latest.current
    await write({ title, reflection, step })
  }
  useKeepFirst(save)
  const { title, reflection, step } = words
  useEffect(() => {
    const timer = setTimeout(() => void save(), PAUSE_MS)
    return () => clearTimeout(timer)
    // `save` reads everything it needs when it runs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [title, reflection, step])
  // Leaving is always safe: words of the last moment are kept as well.
  const leave = useRef(save)
  leave.current = save
  useEffect(() => () => void leave.current(), [])
  return {
    words,
    write: (more: Partial<Typed>) => setWords((now) => ({ ...now, ...more })),
    save,
    draft,
  }
}
