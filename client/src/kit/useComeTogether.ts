import { useEffect, useState } from 'react'

/** What is not here by then comes when it comes. */
const PATIENCE_MS = 1500

/**
 * For what stands on one screen and is asked for apart: shown one after the other, each would push
 * what is below it from under a finger.
 * @param asked - As TanStack Query tells of it; what cannot be asked, or went wrong, is not waited for.
 * @returns whether all of it is here, or has had its time
 */
export function useComeTogether(...asked: readonly { isLoading: boolean }[]): boolean {
  // Of each, and nothing else of it: its screen is not drawn anew for every answer that comes later.
  const waits = asked.map(({ isLoading }) => isLoading).includes(true)
  const [isOver, setOver] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setOver(true), PATIENCE_MS)
    return () => clearTimeout(timer)
  }, [])
  return isOver || !waits
}
