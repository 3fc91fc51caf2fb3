import { backOffMs } from '@nibquill/core'

const untilGone = (signal: AbortSignal): Promise<void> =>
  signal.aborted
    ? Promise.resolve()
    : new Promise((resolve) => signal.addEventListener('abort', () => resolve(), { once: true }))

/**
 * Does a piece of work in one page of this browser at a time. The page that did it holds its place
 * until the signal says it has gone;
 * then the next one does it. Work that fails is begun again, later and later.
 * @param name - Of the place, shared by all pages.
 * @param work - Returns early when the signal says so; whatever it left undone is the next one's.
 */
export async function whileMine(
  name: string,
  signal: AbortSignal,
  work: () => Promise<void>,
): Promise<void> {
  const hold = async () => {
    for (let failures = 1; !signal.aborted; failures++) {
      const done = await work().then(
        () => true,
        () => false,
      )
      if (done) return untilGone(signal)
      await Promise.race([
        untilGone(signal),
        new Promise((go) => setTimeout(go, backOffMs(failures, Math.random()))),
      ])
    }
  }
  if (typeof navigator.locks === 'undefined') return hold()
  try {
    await navigator.locks.request(name, { signal }, hold)
  } catch {
    // Gone before its turn came; or a browser that refuses places where it keeps nothing, and then
    // nobody else waits for one.
    return hold()
  }
}
