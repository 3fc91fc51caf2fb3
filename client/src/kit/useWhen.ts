import { useSyncExternalStore } from 'react'
import { sinceWhen, subscribeToMinutes } from './clock'
import { whenIsItDue, whenItOpens, whenWasIt } from './dates'

/**
 * Moments as people say them today: on a screen that stays open, `today` becomes `yesterday` by
 * itself, and what is due was due.
 */
export function useWhen() {
  const now = useSyncExternalStore(subscribeToMinutes, sinceWhen)
  return {
    whenWasIt: (moment: string) => whenWasIt(moment, now),
    whenIsItDue: (moment: string) => whenIsItDue(moment, now),
    whenItOpens: (moment: string) => whenItOpens(moment, now),
    /** Whether it is still to come. */
    isToCome: (moment: string) => new Date(moment) > now,
  }
}
