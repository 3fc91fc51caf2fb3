import {
  Earlier,
  Piece,
  Tray,
  type Decide,
  type FileElsewhere,
  type Transcribe,
} from '@nibquill/contract'
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

/** A change of one piece. Its promise is kept once what is on screen is as the school has it. */
function usePieceChange<Input>(change: (input: Input) => Promise<Piece>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSettled: () =>
      Promise.all(
        touchedBy({ topic: 'pieces' }).map((queryKey) => queries.invalidateQueries({ queryKey })),
      ),
  })
}

export const useDecide = () =>
  usePieceChange(({ pieceId, decision }: { pieceId: string; decision: Decide }) =>
    api.post(`/review/pieces/${pieceId}`, Piece, decision),
  )
export const useTranscribe = () =>
  usePieceChange(
    ({ pieceId, partId, ...words }: Transcribe & { pieceId: string; partId: string }) =>
      api.put(`/review/pieces/${pieceId}/parts/${partId}/transcript`, Piece, words),
  )
export const useFileElsewhere = () =>
  usePieceChange(({ pieceId, ...file }: FileElsewhere & { pieceId: string }) =>
    api.post(`/review/pieces/${pieceId}/file`, Piece, file),
  )
export const useTakeBack = () =>
  usePieceChange(({ pieceId, seenVersion }: { pieceId: string; seenVersion: number }) =>
    api.post(`/review/pieces/${pieceId}/take-back`, Piece, { seenVersion }),
  )
