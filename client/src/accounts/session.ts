import { Done, Session, type CardSignIn, type ChoosePassword, type FirstRun, type PasswordSignIn } from '@nibquill/contract'
import { queryOptions, useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query'
import { api } from '../api/api'
import { setSchoolZone } from '../kit/dates'

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async ({ signal }) => {
    const session = await api.get('/accounts/session', Session, signal)
    if (session.school) setSchoolZone(session.school.timeZone)
    return session
  },
  staleTime: 60_000,
})
export const useSession = () => useQuery(sessionQuery)

/** Drops all that was fetched for whoever was here, but for the question who is: screens listen to that one. */
const forgetEverything = (queries: QueryClient) =>
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== sessionQuery.queryKey[0] })

type Way =
  | { way: 'card'; body: CardSignIn }
  | { way: 'password'; body: PasswordSignIn }
  | { way: 'invitation'; body: { token: string } }
  | { way: 'first-run'; body: FirstRun }
  | { way: 'password-link'; token: string; body: ChoosePassword }

function addressOf(way: Way): string {
  if (way.way === 'first-run') return '/accounts/first-run'
  return way.way === 'password-link' ? `/accounts/password-links/${way.token}` : `/accounts/sign-in/${way.way}`
}

/** Comes in. Nothing of whoever was here before stays in memory. */
export function useSignIn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (way: Way) => api.post(addressOf(way), Session, way.body),
    onSuccess: (session) => {
      forgetEverything(queries)
      if (session.school) setSchoolZone(session.school.timeZone)
      queries.setQueryData(sessionQuery.queryKey, session)
    },
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => api.post('/accounts/sign-out', Done),
    onSettled: () => {
      forgetEverything(queries)
      const school = queries.getQueryData(sessionQuery.queryKey)?.school ?? null
      queries.setQueryData(sessionQuery.queryKey, { firstRun: false, school, person: null })
      void queries.invalidateQueries({ queryKey: sessionQuery.queryKey })
    },
  })
}
