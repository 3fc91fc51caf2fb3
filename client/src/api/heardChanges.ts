import type { LiveEvent } from '@nibquill/contract'
import { hashKey, type Query, type QueryClient, type QueryKey } from '@tanstack/react-query'
import { changesOnTheirWay } from './api'
import { touchedBy } from './touches'

/** Thirty pupils hand in at once: what they touched is asked for once in such a time. */
const GATHERED_FOR_MS = 250
/** What this page does itself asks for all it touches once it is answered; it is heard of before. */
const HELD_AT_MOST_MS = 500
const LOOKED_AT_AGAIN_AFTER_MS = 25

/**
 * Asks again for what is heard to have changed: at once, but for a page that hears much or is just
 * changing something itself, and never for what was asked and answered since.
 */
export class HeardChanges {
  readonly #queries: QueryClient
  readonly #askedAt = new WeakMap<Query, number>()
  /** When the answer that is here was asked for. */
  readonly #answeredFrom = new WeakMap<Query, number>()
  readonly #waiting = new Map<string, { queryKey: QueryKey; heardAt: number }>()
  readonly #unsubscribe: () => void
  #timer: ReturnType<typeof setTimeout> | null = null
  #waitingSince = 0
  #lastAsked = -GATHERED_FOR_MS

  constructor(queries: QueryClient) {
    this.#queries = queries
    this.#unsubscribe = queries.getQueryCache().subscribe((event) => {
      if (event.type !== 'updated') return
      const { query, action } = event
      if (action.type === 'fetch') this.#askedAt.set(query, performance.now())
      if (action.type === 'success' && !action.manual)
        this.#answeredFrom.set(query, this.#askedAt.get(query) ?? 0)
    })
  }

  hear(event: LiveEvent): void {
    const heardAt = performance.now()
    for (const queryKey of touchedBy(event))
      this.#waiting.set(hashKey(queryKey), { queryKey, heardAt })
    if (this.#timer) return
    this.#waitingSince = heardAt
    this.#askIn(Math.max(0, this.#lastAsked + GATHERED_FOR_MS - heardAt))
  }

  stop(): void {
    this.#unsubscribe()
    if (this.#timer) clearTimeout(this.#timer)
  }

  #askIn(ms: number): void {
    this.#timer = setTimeout(() => this.#ask(), ms)
  }

  #ask(): void {
    const now = performance.now()
    if (changesOnTheirWay() && now - this.#waitingSince < HELD_AT_MOST_MS)
      return this.#askIn(LOOKED_AT_AGAIN_AFTER_MS)
    this.#timer = null
    this.#lastAsked = now
    for (const [hash, { queryKey, heardAt }] of [...this.#waiting]) {
      const asked = (query: Query) => (this.#askedAt.get(query) ?? -1) >= heardAt
      const answered = (query: Query) => (this.#answeredFrom.get(query) ?? -1) >= heardAt
      const onItsWay = (query: Query) =>
        asked(query) && !answered(query) && query.state.fetchStatus === 'fetching'
      // Left before it is answered it was not asked: that is looked at once more.
      const open = this.#queries.getQueryCache().findAll({ queryKey, predicate: onItsWay })
      if (open.length === 0) this.#waiting.delete(hash)
      const again = (query: Query) => !answered(query) && !onItsWay(query)
      void this.#queries.invalidateQueries({ queryKey, predicate: again })
    }
    if (this.#waiting.size === 0) return
    this.#waitingSince = now
    this.#askIn(GATHERED_FOR_MS)
  }
}
