import { Piece, type AddPart } from '@nibquill/contract'
import { orderParts } from '@nibquill/core'
import { useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'
import { codeOf } from '../api/problems'
import { pieceQuery, usePieceChange } from '../pieces/piecesQueries'

export const addPart = (pieceId: string, partId: string, part: AddPart): Promise<Piece> =>
  api.put(`/pieces/${pieceId}/parts/${partId}`, Piece, part)
export const useAddPart = (pieceId: string) =>
  usePieceChange(pieceId, ({ partId, ...part }: { partId: string } & AddPart) =>
    addPart(pieceId, partId, part),
  )

const removePart = (pieceId: string, partId: string) =>
  api.remove(`/pieces/${pieceId}/parts/${partId}`, Piece)
const restorePart = (pieceId: string, partId: string) =>
  api.post(`/pieces/${pieceId}/parts/${partId}/restore`, Piece)
export const useRemovePart = (pieceId: string) =>
  usePieceChange(pieceId, ({ partId, restore }: { partId: string; restore: boolean }) =>
    restore ? restorePart(pieceId, partId) : removePart(pieceId, partId),
  )
/** Takes a part out and puts another back in its place: tidying taken back. */
export const useSwapParts = (pieceId: string) =>
  usePieceChange(pieceId, async ({ out, back }: { out: string; back: string }) => {
    try {
      // Back first: whatever happens in between, the photo is there.
      await restorePart(pieceId, back)
      return await removePart(pieceId, out)
    } catch (error) {
      if (codeOf(error) !== 'piece/full') throw error
      await removePart(pieceId, out)
      return restorePart(pieceId, back)
    }
  })

export const useNamePart = (pieceId: string) =>
  usePieceChange(pieceId, ({ partId, name }: { partId: string; name: string }) =>
    api.patch(`/pieces/${pieceId}/parts/${partId}`, Piece, { name }),
  )

/** The new order is shown at once; when it could not be kept, the old one comes back. */
export function useOrderParts(pieceId: string) {
  const queries = useQueryClient()
  const change = usePieceChange(pieceId, (partIds: string[]) =>
    api.put(`/pieces/${pieceId}/order`, Piece, { partIds }),
  )
  return {
    ...change,
    order: (partIds: string[]) => {
      const key = pieceQuery(pieceId).queryKey
      const before = queries.getQueryData(key)
      if (before) {
        const ordered = orderParts(
          before.parts.map(({ id }) => id),
          partIds,
        )
        queries.setQueryData(key, {
          ...before,
          parts: ordered.map((id) => before.parts.find((part) => part.id === id)!),
        })
      }
      change.mutate(partIds, { onError: () => queries.setQueryData(key, before) })
    },
  }
}
