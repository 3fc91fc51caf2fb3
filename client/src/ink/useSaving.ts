import type { InkDocument } from '@nibquill/core/ink/document'
import { useEffect, useRef, useState } from 'react'
import { toast } from '../kit/Toast'
import { Drawing } from './drawing'
import { t } from './words'

const PAUSE_MS = 1200

/**
 * A sheet under its teacher's hand: saved a moment after the last line, one save after the other, and
 * when one leaves.
 * @param begun - As it was opened.
 * @param bring - Brings it to school; null takes it away.
 */
export function useSaving(begun: InkDocument, bring: (ink: InkDocument | null) => Promise<void>) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const dirty = useRef(false)
  const running = useRef<Promise<void>>(Promise.resolve())
  const [busy, setBusy] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const saveNow = async () => {
    if (!dirty.current) return
    dirty.current = false
    try {
      await bring(drawing.getSnapshot().ink)
      setError(null)
    } catch (problem) {
      dirty.current = true
      setError(problem)
    } finally {
      setBusy(dirty.current)
    }
  }
  const save = (): Promise<void> => {
    clearTimeout(timer.current)
    return (running.current = running.current.then(saveNow))
  }
  const latest = useRef(save)
  latest.current = save
  const touched = () => {
    dirty.current = true
    setBusy(true)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => void latest.current(), PAUSE_MS)
  }
  const [drawing] = useState(() => new Drawing(begun, touched))
  useEffect(() => () => void latest.current(), [])
  /** @param words - That it is gone; it can be brought back. */
  const takeAway = async (words: string) => {
    await save()
    const before = drawing.getSnapshot().ink
    await bring(null)
    toast(words, { undo: () => void bring(before) })
  }
  return { drawing, busy, error, save, touched, takeAway }
}
export type Saving = ReturnType<typeof useSaving>

/** What is said of it. @param isThere - Whether anything is at school. */
export const savingWords = ({ busy }: Pick<Saving, 'busy'>, isThere: boolean): string =>
  busy ? t('saving') : isThere ? t('saved') : ''
