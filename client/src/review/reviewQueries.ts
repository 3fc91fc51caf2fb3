import {
  Done,
  Drafts,
  Earlier,
  Nudged,
  Piece,
  SecondLooks,
  Sentences,
  Tray,
  type SecondLook,
  type Decide,
  type FileElsewhere,
  type Transcribe,
} from '@nibquill/contract'
import {
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk } from '../api/queries'
import { touchedBy } from '../api/touches'
import { withQuery } from '../api/withQuery'
import type { TrayView } from './useTrayView'

/** Without a view all classes, what was handed in first first. */
export const useTray = (
  { classId, order }: Partial<Pick<TrayView, 'classId' | 'order'>> = {},
  { enabled = true } = {},
) => {
  const which = { ...(classId ? { classId } : {}), ...(order === 'due' ? { order } : {}) }
  return useInfiniteQuery({
    queryKey: ['review', 'tray', which],
    enabled,
    queryFn: ({ pageParam, signal }) =>
      api.get(withQuery('/review/tray', { ...which, after: pageParam }), Tray, signal),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })
}
export const useDrafts = (classId: string | undefined) =>
  useInfiniteQuery({
    queryKey: ['review', 'drafts', classId ?? ''],
    queryFn: ({ pageParam, signal }) =>
      api.get(
        withQuery('/review/drafts', { ...(classId ? { classId } : {}), after: pageParam }),
        Drafts,
        signal,
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })
/** What teachers want to come back to. */
export const useSecondLooks = () =>
  useAsk(['review', 'second-looks'], '/review/second-looks', SecondLooks)
export const useAskSecondLook = () =>
  useLooksChange(({ pieceId, reason }: { pieceId: string; reason: string }) =>
    api.put(`/review/pieces/${pieceId}/second-look`, SecondLooks, { reason }),
  )
export const useTickSecondLook = () =>
  useLooksChange(({ pieceId, move }: { pieceId: string; move: 'done' | 'restore' }) =>
    api.post(`/review/pieces/${pieceId}/second-look/${move}`, SecondLooks),
  )
/** A teacher's own stock of sentences. */
export const useSentences = () => useAsk(['review', 'sentences'], '/review/sentences', Sentences)
export function usePutSentences() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (sentences: string[]) => api.put('/review/sentences', Sentences, { sentences }),
    onSuccess: (stock) => queries.setQueryData(['review', 'sentences'], stock),
  })
}
/** Answered with what is left to be looked at. */
function useLooksChange<Input>(change: (input: Input) => Promise<SecondLook[]>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: (looks) => queries.setQueryData(['review', 'second-looks'], looks),
  })
}

export const earlierQuery = (pieceId: string) =>
  queryOptions({
    queryKey: ['review', 'earlier', pieceId],
    queryFn: ({ signal }) => api.get(`/review/pieces/${pieceId}/earlier`, Earlier, signal),
  })
export const useEarlier = (pieceId: string) => useQuery(earlierQuery(pieceId))

/**
 * A change of a piece, or of several. Its promise is kept once what is on screen is as the school has
 * it.
 */
function usePieceChange<Input extends { pieceId: string } | string[], Output = Piece>(
  change: (input: Input) => Promise<Output>,
) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSettled: (_answer, error, input) => {
      const id = 'pieceId' in input ? { id: input.pieceId } : {}
      const asked = touchedBy({ topic: 'pieces', ...id }).map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      )
      // What came to nothing is known at once, also while nothing can be asked.
      return error ? undefined : Promise.all(asked)
    },
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
export const useBinHandedIn = () =>
  usePieceChange(({ pieceId, seenVersion }: { pieceId: string; seenVersion: number }) =>
    api.post(`/review/pieces/${pieceId}/bin`, Done, { seenVersion }),
  )
export const useRestoreHandedIn = () =>
  usePieceChange(({ pieceId }: { pieceId: string }) =>
    api.post(`/review/pieces/${pieceId}/restore`, Done),
  )
export const useNudgeDrafts = () =>
  usePieceChange((pieceIds: string[]) => api.post('/review/drafts/nudge', Nudged, { pieceIds }))
