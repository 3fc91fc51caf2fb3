import { Book, BookForecast, Books, Done, type MakeBook } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

const STILL_MAKING_MS = 1500
export const useBooks = (pupilId: string) =>
  useQuery({
    queryKey: ['book', pupilId],
    queryFn: ({ signal }) => api.get(`/book?pupilId=${pupilId}`, Books, signal),
    enabled: pupilId !== '',
    // Live events tell sooner; this is for when they do not come through.
    refetchInterval: ({ state }) =>
      state.data?.some((book) => book.state === 'waiting' || book.state === 'making')
        ? STILL_MAKING_MS
        : false,
  })
export const useBookForecast = ({ pupilId, termId, madeFor }: MakeBook) =>
  useQuery({
    queryKey: ['book', 'plan', pupilId, termId, madeFor],
    queryFn: ({ signal }) =>
      api.get(
        `/book/plan?pupilId=${pupilId}&termId=${termId}&madeFor=${madeFor}`,
        BookForecast,
        signal,
      ),
  })
export function useMakeBook() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (order: MakeBook) => api.post('/book', Book, order),
    onSettled: () => queries.invalidateQueries({ queryKey: ['book'] }),
  })
}
export function useWithdrawLinks() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (bookId: string) => api.post(`/book/${bookId}/links/withdraw`, Done),
    onSettled: () => queries.invalidateQueries({ queryKey: ['book'] }),
  })
}
