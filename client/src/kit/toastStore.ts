/** `number` counts them, so that two that say the same are two. */
export type Toast = { number: number; text: string; undo?: () => void; undoLabel: string }

/** One message at a time; a newer one takes the older's place. */
export function create() {
  let now: Toast | null = null
  let count = 0
  const listeners = new Set<() => void>()
  const set = (next: Toast | null) => {
    now = next
    for (const listener of listeners) listener()
  }
  return {
    get: () => now,
    subscribe: (listener: () => void) => {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    show: (text: string, undo?: () => void, undoLabel = 'Undo') =>
      set({ number: ++count, text, undo, undoLabel }),
    hide: () => set(null),
  }
}
