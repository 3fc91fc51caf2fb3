import {
  Folder,
  FolderDetail,
  Folders,
  KeptIn,
  type ChangeFolder,
  type MakeFolder,
  type ProposeFolder,
} from '@nibquill/contract'
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQueryClient,
} from '@tanstack/react-query'
import { useEffect } from 'react'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'
import { withQuery } from '../api/withQuery'

export const useFolders = () => useAsk(['folders'], '/folders', Folders)
export const useFoldersPutAway = (enabled: boolean) =>
  useAsk(['folders', 'away'], '/folders?away=1', Folders, { enabled })
/** What is looked for in a folder; all of it where both are empty. */
export type Sought = { words: string; month: string }
export const NOTHING_SOUGHT: Sought = { words: '', month: '' }

export const useFolder = (folderId: string, { words, month }: Sought = NOTHING_SOUGHT) =>
  useInfiniteQuery({
    // Without looking for anything it is known by its id alone, also where it was opened before.
    queryKey: ['folders', folderId, ...(words || month ? [{ words, month }] : [])],
    queryFn: ({ pageParam: after, signal }) =>
      api.get(withQuery(`/folders/${folderId}`, { after, words, month }), FolderDetail, signal),
    placeholderData: keepPreviousData,
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })

/** Where I keep what I made with others. */
export const useKeptIn = (pieceId: string, enabled: boolean) =>
  useAsk(['folders', 'kept', pieceId], `/folders/kept/${pieceId}`, KeptIn, { enabled })
/** @param folderId - Null: where it was approved into. */
export const useKeepIn = (pieceId: string) =>
  useChange(
    (folderId: string | null) => api.put(`/folders/kept/${pieceId}`, KeptIn, { folderId }),
    TOUCHES,
  )

/** Fetches page after page, as long as it is wanted. */
export function useAllPages(
  {
    hasNextPage,
    isFetching,
    fetchNextPage,
  }: Pick<ReturnType<typeof useFolder>, 'hasNextPage' | 'isFetching' | 'fetchNextPage'>,
  wanted: boolean,
): void {
  useEffect(() => {
    if (wanted && hasNextPage && !isFetching) void fetchNextPage()
  }, [wanted, hasNextPage, isFetching, fetchNextPage])
}

const TOUCHES = ['folders'] as const
export const useMakeFolder = () =>
  useChange(
    ({ id, input }: { id: string; input: MakeFolder }) => api.put(`/folders/${id}`, Folder, input),
    TOUCHES,
  )
export const useChangeFolder = () =>
  useChange(
    ({ id, change }: { id: string; change: ChangeFolder }) =>
      api.patch(`/folders/${id}`, Folder, change),
    TOUCHES,
  )
const ORDER = ['folders-order'] as const
/**
 * The order of the folders named, which stands on screen at once and is put back where the school
 * refuses it. Several go out one after another.
 */
export function useOrderFolders() {
  const queries = useQueryClient()
  return useMutation({
    mutationKey: ORDER,
    scope: { id: ORDER[0] },
    mutationFn: (ids: string[]) => api.post('/folders/order', Folders, { ids }),
    onMutate: async (ids) => {
      await queries.cancelQueries({ queryKey: ['folders'], exact: true })
      const before = queries.getQueryData<Folder[]>(['folders'])
      queries.setQueryData<Folder[]>(['folders'], (all) => all && inOrder(all, ids))
      return before
    },
    onError: (_, __, before) => queries.setQueryData(['folders'], before),
    // While another order is on its way, the school's answer to this one is older than the screen.
    onSettled: () =>
      queries.isMutating({ mutationKey: ORDER }) === 1
        ? queries.invalidateQueries({ queryKey: ['folders'] })
        : undefined,
  })
}

/** Those named change places among themselves; the others keep theirs. */
function inOrder(all: Folder[], ids: readonly string[]): Folder[] {
  const named = new Map(all.map((folder) => [folder.id, folder]))
  const next = ids.filter((id) => named.has(id)).map((id) => named.get(id)!)
  const moved = new Set(next)
  return all.map((folder) => (moved.has(folder) ? next.shift()! : folder))
}
export const useReadySet = () =>
  useChange((classId: string) => api.post('/folders/ready-set', Folders, { classId }), TOUCHES)
export const usePutAway = () =>
  useChange(
    ({ id, back }: { id: string; back: boolean }) =>
      api.post(`/folders/${id}/${back ? 'take-out' : 'put-away'}`, Folder),
    TOUCHES,
  )
export const useAnswerProposal = () =>
  useChange(
    ({ id, agree }: { id: string; agree: boolean }) =>
      api.post(`/folders/${id}/${agree ? 'agree' : 'decline'}`, Folders),
    TOUCHES,
  )
export const useProposeFolder = () =>
  useChange(
    ({ id, look }: { id: string; look: ProposeFolder }) =>
      api.put(`/folders/proposals/${id}`, Folder, look),
    TOUCHES,
  )
