import { Earlier, Piece, Tray, type Decide } from '@nibquill/contract'
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'
import { touchedBy } from '../api/touches'

export const useTray = () =>
  useInfiniteQuery({
    queryKey: ['review', 'tray'],
    queryFn: ({ pageParam, signal }) =>
      api.get(`/review/tray${pageParam ? `?after=${pageParam}` : ''}`, Tray, signal),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })
export const useEarlier = (pieceId: string) =>
  useQuery({
    queryKey: ['review', 'earlier', pieceId],
    queryFn: ({ signal }) => api.get(`/review/pieces/${pieceId}/earlier`, Earlier, signal),
  })

export function useDecide() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ pieceId, decision }: { pieceId: string; decision: Decide }) =>
      api.post(`/review/pieces/${pieceId}`, Piece, decision),
    onSettled: () => {
      for (const queryKey of touchedBy({ topic: 'pieces' }))
        void queries.invalidateQueries({ queryKey })
    },
  })
}
