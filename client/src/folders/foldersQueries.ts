import {
  Folder,
  FolderDetail,
  Folders,
  type ChangeFolder,
  type MakeFolder,
  type ProposeFolder,
} from '@nibquill/contract'
import { useInfiniteQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'

export const useFolders = () => useAsk(['folders'], '/folders', Folders)
export const useFoldersPutAway = (enabled: boolean) =>
  useAsk(['folders', 'away'], '/folders?away=1', Folders, { enabled })
export const useFolder = (folderId: string) =>
  useInfiniteQuery({
    queryKey: ['folders', folderId],
    queryFn: ({ pageParam, signal }) =>
      api.get(
        `/folders/${folderId}${pageParam ? `?after=${pageParam}` : ''}`,
        FolderDetail,
        signal,
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })

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
export const useOrderFolders = () =>
  useChange((ids: string[]) => api.post('/folders/order', Folders, { ids }), TOUCHES)
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
