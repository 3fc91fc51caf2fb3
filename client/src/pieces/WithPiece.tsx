import type { Piece } from '@nibquill/contract'
import { useLocalSearchParams } from 'expo-router'
import type { ReactNode } from 'react'
import { Loading, ProblemNotice } from '../kit/Notice'
import { usePiece } from './piecesQueries'

/** Loads the piece the address names, or says why not. */
export function WithPiece({ children }: { children: (piece: Piece) => ReactNode }) {
  const { id } = useLocalSearchParams<{ id: string }>()
  const piece = usePiece(id)
  if (piece.isPending) return <Loading />
  if (piece.isError) return <ProblemNotice error={piece.error} onRetry={() => void piece.refetch()} />
  return children(piece.data)
}
