/**
 * Keeps the application's own files on this device, so that it opens without a network.
 * A new version is fetched beside the old one and takes over when no page of the old one is open any more: a page never loses
 * the files it began with. @see Service Workers, W3C, "waiting" workers
 */
export function keepApplication(): void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
}
