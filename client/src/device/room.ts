/** What a handful of photos may take: with less free, one is told before making more. */
export const LITTLE_ROOM_BYTES = 80_000_000

/**
 * How many bytes this browser still keeps for us; null where it does not say.
 * @see Storage Standard, `estimate()`
 */
export async function roomLeft(): Promise<number | null> {
  const estimate = await navigator.storage?.estimate?.().catch(() => null)
  return estimate?.quota === undefined ? null : Math.max(0, estimate.quota - (estimate.usage ?? 0))
}

/** Asks the browser not to clear our storage when the tablet runs short. */
export const askToStay = (): void => void navigator.storage?.persist?.().catch(() => undefined)
