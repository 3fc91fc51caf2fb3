import type { InkDocument } from '@nibquill/core/ink/document'
import { NOTHING_EXPECTED, type Expected } from '@nibquill/core/ink/sorting'
import { useRef, useState } from 'react'
import { usePutSheet } from '../tasks'
import { useSaving } from './useSaving'

/**
 * A starter sheet under its teacher's hand.
 * @param begun - The sheet as it was opened, and its id; null for a new one. What was expected on it.
 */
export function useSavingStarter(
  taskId: string,
  begun: { ink: InkDocument; seenMediaId: string | null; expected: Expected | null },
) {
  const put = usePutSheet(taskId)
  const seen = useRef(begun.seenMediaId)
  const [expected, setExpected] = useState(begun.expected ?? NOTHING_EXPECTED)
  const latestExpected = useRef(expected)
  const saving = useSaving(begun.ink, async (ink) => {
    const task = await put.mutateAsync({
      ...{ ink, seenMediaId: seen.current, expected: latestExpected.current },
    })
    seen.current = task.sheet?.mediaId ?? null
  })
  return {
    ...saving,
    expected,
    expect: (next: Expected) => {
      setExpected((latestExpected.current = next))
      saving.touched()
    },
  }
}
