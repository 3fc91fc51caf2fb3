import { useQueryClient } from '@tanstack/react-query'
import { router } from 'expo-router'
import { useEffect, useRef, useSyncExternalStore } from 'react'
import { doorstep, sessionQuery, useSignOut } from './session'

/**
 * Something a screen holds that has to reach the school first.
 * @throws anything, when it could not be kept now
 */
type Keep = () => Promise<unknown>
const keepers = new Set<{ current: Keep }>()

/** While a screen is open, its work is kept before the tablet goes to somebody else. */
export function useKeepFirst(keep: Keep): void {
  const latest = useRef(keep)
  latest.current = keep
  useEffect(() => {
    keepers.add(latest)
    return () => void keepers.delete(latest)
  }, [])
}

/** What must be kept wherever one is, for example files on their way. @returns takes it back */
export function keepFirst(keep: Keep): () => void {
  const keeper = { current: keep }
  keepers.add(keeper)
  return () => void keepers.delete(keeper)
}

/** @throws when something could not be kept; everything else was */
async function keepEverything(): Promise<void> {
  const kept = await Promise.allSettled([...keepers].map((keeper) => keeper.current()))
  if (kept.some(({ status }) => status === 'rejected')) throw new Error('something is not kept yet')
}

/** What the screen says while a tablet changes hands. */
type Stage = 'none' | 'keeping' | 'not-kept' | 'no-network'
let stage: Stage = 'none'
const listeners = new Set<() => void>()
const set = (next: Stage) => {
  stage = next
  for (const listener of listeners) listener()
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}
export const useHandOverStage = (): Stage => useSyncExternalStore(subscribe, () => stage)

const TRY_AGAIN_MS = 5000
/**
 * Which handing over is under way. One that was overtaken must not touch the next pupil's session.
 */
let turn = 0

/**
 * Gives the tablet to the next pupil: covers the desk, keeps what is in hand, closes the session,
 * goes back to the pegs.
 * While something cannot be kept, or the school cannot be told, the desk stays covered and it is
 * tried again; `leaveBehind` goes at once, `goBack` gives the desk back to whoever left it.
 */
export function useHandOver(): {
  handOver: () => Promise<void>
  leaveBehind: () => void
  goBack: () => void
} {
  const signOut = useSignOut()
  const queries = useQueryClient()
  const session = () => queries.getQueryData(sessionQuery.queryKey)
  const leave = async () => {
    turn++
    await signOut.mutateAsync().catch(() => undefined)
    router.replace(doorstep(session()))
    set('none')
  }
  const handOver = async () => {
    if (stage !== 'none') return
    const mine = ++turn
    set('keeping')
    for (;;) {
      const kept = await succeeds(keepEverything())
      // A session that ended meanwhile keeps nothing any more.
      const ready = kept || !session()?.person
      const reached = ready && (await succeeds(fetch('/api/health')))
      if (turn !== mine) return
      if (reached) return leave()
      set(ready ? 'no-network' : 'not-kept')
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS))
      if (turn !== mine) return
    }
  }
  const goBack = () => {
    turn++
    set('none')
  }
  return { handOver, leaveBehind: () => void leave(), goBack }
}

const succeeds = (work: Promise<unknown>): Promise<boolean> =>
  work.then(
    () => true,
    () => false,
  )
