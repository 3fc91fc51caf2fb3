import { MarkUps } from '@nibquill/contract'
import type { InkDocument } from '@nibquill/core/ink/document'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'
import { asking } from '../api/queries'

const at = (pieceId: string) => `/review/pieces/${pieceId}/mark-ups`

/** What teachers wrote on copies of what was handed in, as far as one may see it. */
export const markUpsQuery = (pieceId: string) => asking(['mark-ups', pieceId], at(pieceId), MarkUps)
export const useMarkUps = (pieceId: string) => useQuery(markUpsQuery(pieceId))

/** Answered with all of the piece. */
export function usePutMarkUp(pieceId: string, versionId: string, partId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (markUp: { ink: InkDocument | null; seenMediaId: string | null }) =>
      api.put(`${at(pieceId)}/${versionId}/${partId}`, MarkUps, markUp),
    onSuccess: (markUps) => queries.setQueryData(['mark-ups', pieceId], markUps),
  })
}
