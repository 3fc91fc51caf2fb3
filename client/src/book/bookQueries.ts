import { Book, BookForecast, Books, Done, type MakeBook, type TakeHome } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

/** Live events tell sooner; this is for when they do not come through. */
const STILL_MAKING_MS = 1500
const isGoing = ({ state }: Book) => state === 'waiting' || state === 'making'

export const useBooks = (pupilId: string) =>
  useQuery({
    queryKey: ['book', pupilId],
    queryFn: ({ signal }) => api.get(`/book?pupilId=${pupilId}`, Books, signal),
    enabled: pupilId !== '',
    refetchInterval: ({ state }) => (state.data?.some(isGoing) ? STILL_MAKING_MS : false),
  })
export const useBookForecast = ({ pupilId, termId, madeFor }: Omit<MakeBook, 'marked'>) =>
  useQuery({
    queryKey: ['book', 'plan', pupilId, termId, madeFor],
    queryFn: ({ signal }) =>
      api.get(
        `/book/plan?pupilId=${pupilId}&termId=${termId}&madeFor=${madeFor}`,
        BookForecast,
        signal,
      ),
  })
/** One book, until it is made. */
export const useBook = (bookId: string | null) =>
  useQuery({
    queryKey: ['book', 'one', bookId],
    queryFn: ({ signal }) => api.get(`/book/${bookId}`, Book, signal),
    enabled: bookId !== null,
    refetchInterval: ({ state }) => (state.data && isGoing(state.data) ? STILL_MAKING_MS : false),
  })
export function useTakeHome() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (order: TakeHome) => api.post('/book/take-home', Book, order),
    onSuccess: (book) => queries.setQueryData(['book', 'one', book.id], book),
  })
}
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
