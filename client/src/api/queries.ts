import {
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from '@tanstack/react-query'
import type * as v from 'valibot'
import { api } from './api'

/** What the server says at a path, kept under its key. */
export const asking = <S extends v.GenericSchema>(
  key: readonly string[],
  path: string,
  schema: S,
) => queryOptions({ queryKey: key, queryFn: ({ signal }) => api.get(path, schema, signal) })

/** @see asking */
export const useAsk = <S extends v.GenericSchema>(
  key: readonly string[],
  path: string,
  schema: S,
  options: {
    enabled?: boolean
    /**
     * What is on screen already is asked for again by every screen that opens: it changes by other
     * hands.
     */
    fresh?: boolean
    refetchInterval?: (data: v.InferOutput<S> | undefined) => number | false
  } = {},
): UseQueryResult<v.InferOutput<S>> =>
  useQuery({
    ...asking(key, path, schema),
    enabled: options.enabled ?? true,
    ...(options.fresh ? { staleTime: 0 } : {}),
    refetchInterval: options.refetchInterval
      ? (query) => options.refetchInterval!(query.state.data)
      : false,
  })

/** A change, after which everything of the capabilities it touches is asked for again. */
export function useChange<Input, Output>(
  change: (input: Input) => Promise<Output>,
  touches: readonly string[],
): UseMutationResult<Output, Error, Input> {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSettled: () =>
      Promise.all(
        touches.map((capability) => queries.invalidateQueries({ queryKey: [capability] })),
      ),
  })
}
