import {
  Children,
  ChildWork,
  GuardianRequests,
  InvitedParent,
  LinkedPiece,
  PupilSharing,
  type AddParent,
  type Consent,
} from '@nibquill/contract'
import { useQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'

export const useChildren = () =>
  useQuery({
    queryKey: ['sharing', 'children'],
    queryFn: ({ signal }) => api.get('/sharing/children', Children, signal),
  })
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
  useAsk(['sharing', 'pupils', pupilId], `/sharing/pupils/${pupilId}`, PupilSharing)
const at = (pupilId: string) => `/sharing/pupils/${pupilId}`
export const useChangeInvitation = (pupilId: string) =>
  useChange(
    ({ invitationId, change }: { invitationId: string; change: 'withdraw' | 'renew' }) =>
      api.post(`${at(pupilId)}/invitations/${invitationId}/${change}`, InvitedParent),
    ['sharing'],
  )
export const useAddParent = (pupilId: string) =>
  useChange(
    ({ id, input }: { id: string; input: AddParent }) =>
      api.put(`${at(pupilId)}/parents/${id}`, InvitedParent, input),
    ['sharing', 'mail'],
  )
export const useRemoveParent = (pupilId: string) =>
  useChange(
    (parentId: string) => api.remove(`${at(pupilId)}/parents/${parentId}`, PupilSharing),
    ['sharing'],
  )
export const usePutConsent = (pupilId: string) =>
  useChange(
    ({ kind, granted }: { kind: Consent['kind']; granted: boolean }) =>
      api.put(`${at(pupilId)}/consents/${kind}`, PupilSharing, { granted }),
    ['sharing'],
  )
export const useRequests = () =>
  useAsk(['sharing', 'requests'], '/sharing/requests', GuardianRequests)
export const useAnswerRequest = () =>
  useChange(
    ({ id, word }: { id: string; word: 'accept' | 'decline' }) =>
      api.post(`/sharing/requests/${id}/${word}`, GuardianRequests),
    ['sharing'],
  )
