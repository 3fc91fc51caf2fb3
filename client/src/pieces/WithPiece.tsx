import type { Piece } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useLocalSearchParams } from 'expo-router'
import type { ReactNode } from 'react'
import { Loading, ProblemNotice } from '../kit/Notice'
import { withDraft } from './localPiece'
import { usePiece } from './piecesQueries'
import { useDrafts } from './uploads'

/**
 * Loads the piece the address names, or says why not. What is on this tablet is shown whether or
 * not the school can be reached.
 */
export function WithPiece({ children }: { children: (piece: Piece) => ReactNode }) {
  const { id } = useLocalSearchParams<{ id: string }>()
  const queries = useQueryClient()
  const piece = usePiece(id)
  const draft = useDrafts().get(id)
  if (piece.data) return children(withDraft(queries, piece.data, draft))
  if (piece.isError)
    return <ProblemNotice error={piece.error} onRetry={() => void piece.refetch()} />
  return <Loading />
}
