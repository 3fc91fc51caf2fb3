import type { Tidying } from '@nibquill/core'
import { useState } from 'react'

type History = { past: Tidying[]; now: Tidying; future: Tidying[] }

/**
 * A recipe with every step undoable. A drag or a slider counts as one step: `begin` it, then `move`
 * as often as needed.
 */
export function useTidying(first: Tidying) {
  const [{ past, now, future }, setHistory] = useState<History>({
    past: [],
    now: first,
    future: [],
  })
  const change = (next: Tidying) =>
    setHistory((history) =>
      isEqual(history.now, next)
        ? history
        : { past: [...history.past, history.now], now: next, future: [] },
    )
  return {
    tidying: now,
    change,
    /**
     * Puts the recipe as it is into the past, so that what `move` does can be taken back in one.
     */
    begin: () =>
      setHistory((history) => ({
        past: [...history.past, history.now],
        now: history.now,
        future: [],
      })),
    move: (next: Tidying) => setHistory((history) => ({ ...history, now: next })),
    undo:
      past.length === 0
        ? null
        : () =>
            setHistory((history) => ({
              past: history.past.slice(0, -1),
              now: history.past.at(-1)!,
              future: [history.now, ...history.future],
            })),
    redo:
      future.length === 0
        ? null
        : () =>
            setHistory((history) => ({
              past: [...history.past, history.now],
              now: history.future[0]!,
              future: history.future.slice(1),
            })),
  }
}

const isEqual = (a: Tidying, b: Tidying): boolean => JSON.stringify(a) === JSON.stringify(b)
