export type Toast = { text: string; undo?: () => void; undoLabel: string }

/** One message at a time; a newer one takes the older's place. */
export function create() {
  let now: Toast | null = null
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
    show: (text: string, undo?: () => void, undoLabel = 'Undo') => set({ text, undo, undoLabel }),
    hide: () => set(null),
  }
}
