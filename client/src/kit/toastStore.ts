/** `number` counts them, so that two that say the same are two. */
export type Toast = { number: number; text: string; undo?: () => void; undoLabel: string }

type Options = {
  undo?: () => void
  undoLabel?: string
  /** How long it stands. */
  standsMs?: number
}

const STANDS_MS = 7000

/** One message at a time; a newer one takes the older's place. */
export function create() {
  let now: Toast | null = null
  let count = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  // Where it can be shown; the place that came last shows it.
  let places: symbol[] = []
  const listeners = new Set<() => void>()
  const tell = () => {
    for (const listener of listeners) listener()
  }
  const set = (next: Toast | null) => {
    clearTimeout(timer)
    now = next
    tell()
  }
  return {
    get: () => now,
    placeShown: () => places.at(-1) ?? null,
    subscribe: (listener: () => void) => {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    /** @returns takes the place away again */
    addPlace: (place: symbol) => {
      places = [...places, place]
      tell()
      return () => {
        places = places.filter((other) => other !== place)
        tell()
      }
    },
    show: (text: string, { undo, undoLabel = '', standsMs = STANDS_MS }: Options = {}) => {
      set({ number: ++count, text, undo, undoLabel })
      timer = setTimeout(() => set(null), standsMs)
    },
    hide: () => set(null),
  }
}
