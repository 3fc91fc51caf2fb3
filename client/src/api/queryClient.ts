import {
  MutationCache,
  QueryCache,
  QueryClient,
  type InvalidateOptions,
  type InvalidateQueryFilters,
  type Query,
} from '@tanstack/react-query'
import { codeOf, ProblemError } from '../kit/problems'

/**
 * What changes while it is asked for the first time, or ahead for a page that is not shown yet, is
 * asked for once more. The plain client joins the question that is on its way, and takes its answer,
 * read before the change, for one of after it.
 */
export class AskingQueryClient extends QueryClient {
  readonly #onTheirWay = new Set<Query>()

  override async invalidateQueries(
    filters: InvalidateQueryFilters = {},
    options?: InvalidateOptions,
  ): Promise<void> {
    const joined = this.getQueryCache()
      .findAll({ ...filters, fetchStatus: 'fetching' })
      .filter((query) => query.state.data === undefined || !query.isActive())
    const plainly = super.invalidateQueries(filters, options)
    if (filters.refetchType !== 'none') await Promise.all(joined.map(this.#onceMore))
    return plainly
  }

  readonly #onceMore = async (query: Query): Promise<void> => {
    if (this.#onTheirWay.has(query)) return
    this.#onTheirWay.add(query)
    // Its own asker hears of an error.
    await query.fetch(undefined, { cancelRefetch: false }).catch(() => undefined)
    this.#onTheirWay.delete(query)
    await super.invalidateQueries({ queryKey: query.queryKey, exact: true })
  }
}

/**
 * When the server says that nobody is signed in any more, it is asked who is: the door opens. Any
 * other error is not its business.
 */
export const noteSignedOut = (error: unknown): void => {
  if (codeOf(error) === 'accounts/signed-out')
    void queryClient.invalidateQueries({ queryKey: ['session'] })
}

export const queryClient: QueryClient = new AskingQueryClient({
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
