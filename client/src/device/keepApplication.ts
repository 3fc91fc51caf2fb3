import { useEffect } from 'react'

const canKeep = (): boolean => process.env.NODE_ENV === 'production' && 'serviceWorker' in navigator

/**
 * Keeps the application's own files on this device, so that it opens without a network.
 * A new version is fetched beside the old one: a page that somebody works on never loses the files
 * it began with.
 * @see Service Workers, W3C, "waiting" workers
 */
export function keepApplication(): void {
  if (canKeep()) void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
}

/** Before a door nobody works on anything: a new version that waits takes over there. */
export function useNewVersion(): void {
  useEffect(() => {
    if (canKeep()) void takeOver().catch(() => undefined)
  }, [])
}

async function takeOver(): Promise<void> {
  const registration = await navigator.serviceWorker.getRegistration()
  await registration?.update()
  if (!registration?.waiting) return
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), {
    once: true,
  })
  registration.waiting.postMessage({ type: 'SKIP_WAITING' })
}
