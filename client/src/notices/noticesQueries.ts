import { Done, News } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

export const useNews = () =>
  useQuery({ queryKey: ['notices', 'news'], queryFn: ({ signal }) => api.get('/notices/news', News, signal) })
export function useMarkNewsSeen() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => api.post('/notices/news/seen', Done),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['notices'] }),
  })
}
