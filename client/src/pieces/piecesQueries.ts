import { Classmates, MyPieces, Piece } from '@nibquill/contract'
import {
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'
import { touchedBy } from '../api/touches'
import { codeOf } from '../kit/problems'

export const myPiecesQuery = queryOptions({
  queryKey: ['pieces', 'mine'],
  queryFn: ({ signal }) => api.get('/pieces', MyPieces, signal),
})
export const pieceQuery = (pieceId: string) =>
  queryOptions({
    queryKey: ['pieces', pieceId],
    queryFn: ({ signal }) => api.get(`/pieces/${pieceId}`, Piece, signal),
  })

export const useMyPieces = () => useQuery(myPiecesQuery)
/** Those a piece may be made with. */
export const useClassmates = (enabled: boolean) =>
  useAsk(['pieces', 'classmates'], '/pieces/classmates', Classmates, { enabled })
export const usePiece = (pieceId: string) =>
  useQuery({ ...pieceQuery(pieceId), enabled: pieceId !== '' })

/**
 * A piece as it came back is what is shown at once. Where it went somewhere, everything that lists
 * it is asked again; the school tells the rest.
 */
export function keepPiece(queries: QueryClient, piece: Piece): void {
  const { queryKey } = pieceQuery(piece.id)
  const before = queries.getQueryData(queryKey)
  queries.setQueryData(queryKey, piece)
  const topic = before?.state === piece.state ? 'work' : 'pieces'
  for (const touched of touchedBy({ topic, id: piece.id }))
    if (touched[1] !== piece.id) void queries.invalidateQueries({ queryKey: touched })
}

/**
 * Something done to a piece. When somebody else was first, the piece as it stands now is fetched.
 */
export function usePieceChange<Input>(pieceId: string, change: (input: Input) => Promise<Piece>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: (piece) => keepPiece(queries, piece),
    onError: (error) => {
      if (codeOf(error)?.startsWith('piece/'))
        void queries.invalidateQueries({ queryKey: ['pieces', pieceId] })
    },
  })
}

export const useOneMoreGo = (pieceId: string) =>
  usePieceChange(pieceId, (seenVersion: number) =>
    api.post(`/pieces/${pieceId}/another-go`, Piece, { seenVersion }),
  )
/** Opens an approved piece for another go, as it stands at this moment. */
export const useAnotherGo = () =>
  useChange(
    async (pieceId: string) => {
      const { version } = await api.get(`/pieces/${pieceId}`, Piece)
      return api.post(`/pieces/${pieceId}/another-go`, Piece, { seenVersion: version })
    },
    ['pieces', 'tasks', 'folders', 'portfolio'],
  )
