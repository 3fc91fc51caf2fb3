import {
  dehydrate,
  hydrate,
  type DehydratedState,
  type Query,
  type QueryClient,
} from '@tanstack/react-query'
import { openDB, type IDBPDatabase } from 'idb'

/**
 * What was asked for last, so that a pupil's desk opens without a network. One record: nobody
 * else's is ever beside it.
 */
type Memory = { savedAt: number; state: DehydratedState }

const NAME = 'nibquill.memory'
const PAUSE_MS = 500
/** Without an idle time of its own a tablet remembers this long. */
const DAYS_MS = 14 * 24 * 3600 * 1000

let db: Promise<IDBPDatabase> | null = null
/** Never throws by itself: a browser that keeps nothing rejects. */
const open = async () =>
  (db ??= openDB(NAME, 1, { upgrade: (fresh) => void fresh.createObjectStore('memory') }))

type Person = { role: string; idleMinutes: number | null }
const personOf = (queries: QueryClient): Person | null =>
  queries.getQueryData<{ person: Person | null }>(['session'])?.person ?? null

/** Only pupils make things without a network; what others see is not kept on their devices. */
const isKept = (query: Query): boolean =>
  query.state.status === 'success' || query.state.data !== undefined

/**
 * Keeps a pupil's fetched things on this tablet until they leave.
 * @returns forgets everything at once, and what was about to be kept
 */
export function rememberQueries(queries: QueryClient): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null
  const save = async () => {
    timer = null
    // Nobody is here any more, or somebody whose things are not kept: nothing of a pupil stays
    // either.
    if (personOf(queries)?.role !== 'pupil') return void (await (await open()).clear('memory'))
    const memory: Memory = {
      savedAt: Date.now(),
      state: dehydrate(queries, {
        shouldDehydrateQuery: isKept,
        shouldDehydrateMutation: () => false,
      }),
    }
    const now = await open()
    if (!keepsNoMore) await now.put('memory', memory, 'now').catch(() => undefined)
  }
  queries.getQueryCache().subscribe(({ type }) => {
    if (type === 'updated' || type === 'added')
      timer ??= setTimeout(() => void save().catch(() => undefined), PAUSE_MS)
  })
  return () => {
    if (timer) clearTimeout(timer)
    timer = null
    void open()
      .then((now) => now.clear('memory'))
      .catch(() => undefined)
  }
}

/** The page is about to be opened anew: what it knows is not to be kept any more. */
let keepsNoMore = false

/** Forgets what was kept, and keeps nothing more until the page is opened anew. Never throws. */
export function forgetRemembered(): Promise<void> {
  keepsNoMore = true
  return open()
    .then((now) => now.clear('memory'))
    .catch(() => undefined)
}

/**
 * Takes up what was kept, unless the tablet lay idle longer than it may. Never throws, never waits
 * long.
 */
export async function recallQueries(queries: QueryClient): Promise<void> {
  const recalled = (async () => {
    const memory = (await (await open()).get('memory', 'now')) as Memory | undefined
    if (!memory) return
    const session = memory.state.queries.find(({ queryKey }) => queryKey[0] === 'session')
    const person = (session?.state.data as { person: Person | null } | undefined)?.person
    const mayLie = person?.idleMinutes ? person.idleMinutes * 60_000 : DAYS_MS
    if (!person || Date.now() - memory.savedAt > mayLie) await (await open()).clear('memory')
    else {
      hydrate(queries, memory.state)
      // Shown at once, and asked for anew: much may have happened since.
      await queries.invalidateQueries({ refetchType: 'none' })
    }
  })().catch(() => undefined)
  await Promise.race([recalled, new Promise((resolve) => setTimeout(resolve, 1500))])
}
