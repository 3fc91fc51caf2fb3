import type { Piece } from '@nibquill/contract'
import { useLocalSearchParams } from 'expo-router'
import type { ReactNode } from 'react'
import { Loading, ProblemNotice } from '../kit/Notice'
import { useShownPiece } from './shownPiece'

/**
 * Loads the piece the address names, or says why not. What is on this tablet is shown whether or
 * not the school can be reached.
 */
export function WithPiece({ children }: { children: (piece: Piece) => ReactNode }) {
  const { id } = useLocalSearchParams<{ id: string }>()
  const { piece, query } = useShownPiece(id)
  if (piece) return children(piece)
  if (query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  return <Loading />
}
