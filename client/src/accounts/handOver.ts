import { useQueryClient } from '@tanstack/react-query'
import { router } from 'expo-router'
import { useEffect, useRef, useSyncExternalStore } from 'react'
import { doorstep, sessionQuery, useSignOut } from './session'

/** Something a screen holds that has to reach the school first. @throws anything, when it could not be kept now */
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
export async function keepEverything(): Promise<void> {
  const kept = await Promise.allSettled([...keepers].map((keeper) => keeper.current()))
  if (kept.some(({ status }) => status === 'rejected')) throw new Error('something is not kept yet')
}

/** What the screen says while a tablet changes hands. */
type HandOver = { stage: 'none' } | { stage: 'keeping' | 'not-kept' }
let now: HandOver = { stage: 'none' }
const listeners = new Set<() => void>()
const set = (next: HandOver) => {
  now = next
  for (const listener of listeners) listener()
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}
export const useHandOverStage = () => useSyncExternalStore(subscribe, () => now).stage

const TRY_AGAIN_MS = 5000

/**
 * Gives the tablet to the next pupil: covers the desk, keeps what is in hand, closes the session, goes back to the pegs.
 * While something cannot be kept the desk stays covered and it is tried again; `leaveBehind` goes without it.
 */
export function useHandOver(): { handOver: () => Promise<void>; leaveBehind: () => void } {
  const signOut = useSignOut()
  const queries = useQueryClient()
  const gone = useRef(false)
  const out = () => {
    gone.current = true
    const to = doorstep(queries.getQueryData(sessionQuery.queryKey))
    signOut.mutate(undefined, {
      onSettled: () => {
        router.replace(to)
        set({ stage: 'none' })
        gone.current = false
      },
    })
  }
  const handOver = async () => {
    if (now.stage !== 'none') return
    set({ stage: 'keeping' })
    for (;;) {
      const kept = await keepEverything().then(
        () => true,
        () => false,
      )
      // Somebody chose to go without it, or the session ended meanwhile.
      if (gone.current) return
      if (kept || !queries.getQueryData(sessionQuery.queryKey)?.person) return out()
      set({ stage: 'not-kept' })
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS))
      if (gone.current) return
    }
  }
  return { handOver, leaveBehind: out }
}
