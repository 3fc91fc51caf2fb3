import { Children, ChildWork, LinkedPiece, PupilSharing } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

export const useChildren = () =>
  useQuery({ queryKey: ['sharing', 'children'], queryFn: ({ signal }) => api.get('/sharing/children', Children, signal) })
export const useChildWork = (pupilId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['sharing', 'children', pupilId],
    queryFn: ({ signal }) => api.get(`/sharing/children/${pupilId}`, ChildWork, signal),
    enabled,
  })
export const useLinkedPiece = (token: string) =>
  useQuery({
    queryKey: ['sharing', 'links', token],
    queryFn: ({ signal }) => api.get(`/sharing/links/${token}`, LinkedPiece, signal),
  })
export const usePupilSharing = (pupilId: string) =>
  useQuery({
    queryKey: ['sharing', 'pupils', pupilId],
    queryFn: ({ signal }) => api.get(`/sharing/pupils/${pupilId}/invitations`, PupilSharing, signal),
  })
export function useChangeInvitation(pupilId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ invitationId, change }: { invitationId: string; change: 'withdraw' | 'renew' }) =>
      api.post(`/sharing/pupils/${pupilId}/invitations/${invitationId}/${change}`, PupilSharing),
    onSuccess: (sharing) => queries.setQueryData(['sharing', 'pupils', pupilId], sharing),
  })
}
