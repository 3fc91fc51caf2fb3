import { useEffect, useState } from 'react'
import { useWaitingComments } from '../comments'
import { useNews } from '../notices'
import { useClasses } from '../school'
import { useSecondLooks } from './reviewQueries'

/** What is not here by then comes when it comes. */
const PATIENCE_MS = 1500

/**
 * What stands above the list of the tray, fetched beside it.
 * @returns whether all of it is here, or has had its time: shown before, the list would move under the
 *   hand with each answer
 */
export function useAround(): boolean {
  const around = [useClasses(), useWaitingComments(), useSecondLooks(), useNews()]
  const waits = around.some(({ isLoading }) => isLoading)
  const [isOver, setOver] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setOver(true), PATIENCE_MS)
    return () => clearTimeout(timer)
  }, [])
  return !waits || isOver
}
