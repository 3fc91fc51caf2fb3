import type { THINGS } from './things.generated'

/** What pegs and folders are known by. */
export type ThingName = keyof typeof THINGS
type Things = Record<ThingName, string>

let things: Things | null = null
let coming: Promise<void> | null = null
const waiting = new Set<() => void>()

/** Their drawings, null until the first of them was asked for and has come. */
export const getThings = (): Things | null => things

/** Asks for them, and tells when they are here. */
export function subscribeThings(onChange: () => void): () => void {
  waiting.add(onChange)
  if (!things)
    coming ??= import('./things.generated').then(
      (module) => {
        things = module.THINGS
        for (const tell of waiting) tell()
      },
      // Not to be reached now: whoever shows one next asks again.
      () => {
        coming = null
      },
    )
  return () => waiting.delete(onChange)
}
