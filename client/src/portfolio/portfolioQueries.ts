import { Portfolio, type PutPick } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

export const usePortfolio = (pupilId: string) =>
  useQuery({
    queryKey: ['portfolio', pupilId],
    queryFn: ({ signal }) => api.get(`/portfolio/${pupilId}`, Portfolio, signal),
    enabled: pupilId !== '',
  })

export function usePick(pupilId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ pieceId, pick }: { pieceId: string; pick: PutPick | null }) =>
      pick
        ? api.put(`/portfolio/${pupilId}/picks/${pieceId}`, Portfolio, pick)
        : api.remove(`/portfolio/${pupilId}/picks/${pieceId}`, Portfolio),
    onSuccess: (portfolio) => {
      queries.setQueryData(['portfolio', pupilId], portfolio)
      for (const capability of ['pieces', 'book'])
        void queries.invalidateQueries({ queryKey: [capability] })
    },
  })
}
