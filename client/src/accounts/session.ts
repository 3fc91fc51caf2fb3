import {
  Done,
  Session,
  type CardSignIn,
  type ChoosePassword,
  type FirstRun,
  type MailCodeSignIn,
  type PasswordSignIn,
  type PegSignIn,
} from '@nibquill/contract'
import {
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query'
import { api } from '../api/api'
import { setSchoolZone } from '../kit/dates'
import { silence } from '../kit/speech'
import { clearToast } from '../kit/Toast'

const OWES_KEY = 'nibquill.owes-sign-out'
/**
 * Somebody left while the school could not be told: before anything else is asked, their session is
 * ended.
 */
const owesSignOut = {
  is: (): boolean => {
    try {
      return localStorage.getItem(OWES_KEY) !== null
    } catch {
      return false
    }
  },
  set: (owes: boolean): void => {
    try {
      if (owes) localStorage.setItem(OWES_KEY, 'yes')
      else localStorage.removeItem(OWES_KEY)
    } catch {
      // A browser that keeps nothing forgets the session's cookie as well.
    }
  },
}

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async ({ signal }) => {
    if (owesSignOut.is()) {
      await api.post('/accounts/sign-out', Done)
      owesSignOut.set(false)
    }
    const session = await api.get('/accounts/session', Session, signal)
    if (session.school) setSchoolZone(session.school.timeZone)
    return session
  },
  staleTime: 60_000,
})
export const useSession = () => useQuery(sessionQuery)

/** Where somebody stands who is not signed in: before the pegs of a class, or before the door. */
export const doorstep = (session: Session | undefined): '/pegs' | '/sign-in' =>
  session?.door ? '/pegs' : '/sign-in'

const forgetters: (() => void)[] = []
/** What else holds something of whoever is here, and lets go of it when they leave. */
export const alsoForget = (forget: () => void): void => void forgetters.push(forget)

/**
 * Drops all that was fetched for whoever was here, but for the question who is: screens listen to
 * that one.
 */
export function forgetEverything(queries: QueryClient): void {
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== sessionQuery.queryKey[0] })
  queries.getMutationCache().clear()
  for (const forget of forgetters) forget()
  clearToast()
  silence()
}

/** Other tabs of this browser: what they show belongs to whoever was here before. */
const tabs =
  typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('nibquill.session')
/** Keeps this tab from showing somebody who left in another one. @returns stops listening */
export function followOtherTabs(queries: QueryClient): () => void {
  const changed = () => {
    forgetEverything(queries)
    void queries.resetQueries({ queryKey: sessionQuery.queryKey })
  }
  tabs?.addEventListener('message', changed)
  return () => tabs?.removeEventListener('message', changed)
}

type Way =
  | { way: 'card'; body: CardSignIn }
  | { way: 'peg'; body: PegSignIn }
  | { way: 'password'; body: PasswordSignIn }
  | { way: 'mail-code'; body: MailCodeSignIn }
  | { way: 'invitation'; body: { token: string } }
  | { way: 'first-run'; body: FirstRun }
  | { way: 'password-link'; token: string; body: ChoosePassword }

function addressOf(way: Way): string {
  if (way.way === 'first-run') return '/accounts/first-run'
  return way.way === 'password-link'
    ? `/accounts/password-links/${way.token}`
    : `/accounts/sign-in/${way.way}`
}

/** Comes in. Nothing of whoever was here before stays in memory. */
export function useSignIn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (way: Way) => api.post(addressOf(way), Session, way.body),
    onSuccess: (session) => {
      owesSignOut.set(false)
      forgetEverything(queries)
      if (session.school) setSchoolZone(session.school.timeZone)
      queries.setQueryData(sessionQuery.queryKey, session)
      tabs?.postMessage('changed')
    },
  })
}

/**
 * Goes out. Also when the school cannot be told just now: then it is told first thing when it can.
 */
export function useSignOut() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => api.post('/accounts/sign-out', Done),
    onError: () => owesSignOut.set(true),
    onSettled: () => {
      const before = queries.getQueryData(sessionQuery.queryKey)
      forgetEverything(queries)
      queries.setQueryData(sessionQuery.queryKey, {
        firstRun: false,
        school: before?.school ?? null,
        person: null,
        door: before?.door ?? null,
      })
      void queries.invalidateQueries({ queryKey: sessionQuery.queryKey })
      tabs?.postMessage('changed')
    },
  })
}

/** Whether letters leave by a mail server, as a word for sentences: `{mails, select, yes {...} other {...}}`. */
export const useMails = (): 'yes' | 'no' =>
  useSession().data?.school?.mails === false ? 'no' : 'yes'
