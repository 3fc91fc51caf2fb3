import { useSyncExternalStore } from 'react'

/**
 * Whether the school answered when it was asked last: a tablet may have a network that leads
 * nowhere.
 */
let reached = true
const listeners = new Set<() => void>()

/** Told by whoever asks the school. */
export function noteReached(now: boolean): void {
  if (now === reached) return
  reached = now
  for (const listener of listeners) listener()
}

const subscribe = (listener: () => void) => {
  listeners.add(listener)
  window.addEventListener('online', listener)
  window.addEventListener('offline', listener)
  return () => {
    listeners.delete(listener)
    window.removeEventListener('online', listener)
    window.removeEventListener('offline', listener)
  }
}

/** Whether the school can be reached, as far as this tablet knows. */
export const useReached = (): boolean =>
  useSyncExternalStore(subscribe, () => navigator.onLine && reached)
