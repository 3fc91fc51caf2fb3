import { Done, type MakeNotice, News, Notices, Readers } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'

export const useNews = () =>
  useQuery({
    queryKey: ['notices', 'news'],
    queryFn: ({ signal }) => api.get('/notices/news', News, signal),
  })
/** What was on screen, by its ids: what came meanwhile is still news. */
export function useMarkNewsSeen() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (ids: string[]) => api.post('/notices/news/seen', Done, { ids }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['notices'] }),
  })
}

export const useNotices = () => useAsk(['notices', 'list'], '/notices', Notices)
export const useReaders = (id: string, enabled: boolean) =>
  useAsk(['notices', 'readers', id], `/notices/${id}/readers`, Readers, { enabled })
export const useMakeNotice = () =>
  useChange(
    ({ id, input }: { id: string; input: MakeNotice }) => api.put(`/notices/${id}`, Notices, input),
    ['notices'],
  )
export const useMoveNotice = () =>
  useChange(
    ({ id, move }: { id: string; move: 'withdraw' | 'restore' }) =>
      api.post(`/notices/${id}/${move}`, Notices),
    ['notices'],
  )
export const useReadNotice = () =>
  useChange((id: string) => api.post(`/notices/${id}/seen`, Done), ['notices'])
