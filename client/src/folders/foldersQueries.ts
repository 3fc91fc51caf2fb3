import { FolderDetail, Folders } from '@nibquill/contract'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { api } from '../api/api'

export const useFolders = () => useQuery({ queryKey: ['folders'], queryFn: ({ signal }) => api.get('/folders', Folders, signal) })
export const useFolder = (folderId: string) =>
  useInfiniteQuery({
    queryKey: ['folders', folderId],
    queryFn: ({ pageParam, signal }) =>
      api.get(`/folders/${folderId}${pageParam ? `?after=${pageParam}` : ''}`, FolderDetail, signal),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
  })
