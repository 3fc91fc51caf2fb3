import type { InkDocument } from '@nibquill/core/ink/document'
import { NOTHING_EXPECTED, type Expected } from '@nibquill/core/ink/sorting'
import { useEffect, useRef, useState } from 'react'
import { toast } from '../kit/Toast'
import { usePutSheet } from '../tasks'
import { Drawing } from './drawing'
import { t } from './words'

const PAUSE_MS = 1200

/**
 * A starter sheet under its teacher's hand: saved a moment after the last line, one save after the
 * other, and when one leaves.
 * @param begun - The sheet as it was opened, and its id; null for a new one. What was expected on it.
 */
export function useSaving(
  taskId: string,
  begun: { ink: InkDocument; seenMediaId: string | null; expected: Expected | null },
) {
  const put = usePutSheet(taskId)
  const seen = useRef(begun.seenMediaId)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const dirty = useRef(false)
  const running = useRef<Promise<void>>(Promise.resolve())
  const [expected, setExpected] = useState(begun.expected ?? NOTHING_EXPECTED)
  const latestExpected = useRef(expected)
  const [busy, setBusy] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const bring = async (ink: InkDocument | null) => {
    const task = await put.mutateAsync({
      ...{ ink, seenMediaId: seen.current, expected: latestExpected.current },
    })
    seen.current = task.sheet?.mediaId ?? null
  }
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
  const [drawing] = useState(() => new Drawing(begun.ink, touched))
  useEffect(() => () => void latest.current(), [])
  const takeAway = async () => {
    await save()
    const before = drawing.getSnapshot().ink
    await bring(null)
    toast(t('sheetAway'), { undo: () => void bring(before) })
  }
  return {
    ...{ drawing, busy, error, save, takeAway },
    expected,
    expect: (next: Expected) => {
      setExpected((latestExpected.current = next))
      touched()
    },
  }
}
