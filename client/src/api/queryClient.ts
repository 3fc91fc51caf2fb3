import { MutationCache, QueryCache, QueryClient } from '@tanstack/react-query'
import { codeOf, ProblemError } from '../kit/problems'

/**
 * When the server says that nobody is signed in any more, it is asked who is: the door opens. Any
 * other error is not its business.
 */
export const noteSignedOut = (error: unknown): void => {
  if (codeOf(error) === 'accounts/signed-out')
    void queryClient.invalidateQueries({ queryKey: ['session'] })
}

export const queryClient: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: noteSignedOut }),
  mutationCache: new MutationCache({ onError: noteSignedOut }),
  defaultOptions: {
    // Without a network what was done fails at once and says so. What is only looked at stays as it
    // was seen last.
    mutations: { networkMode: 'always' },
    queries: {
      staleTime: 15_000,
      // A refusal stays a refusal; only the network and the server's bad moments are tried again.
      retry: (failures, error) =>
        failures < 2 && !(error instanceof ProblemError && error.problem.status < 500),
    },
  },
})
