import {
  CardSheet,
  CardSheets,
  ClassDoor,
  Done,
  InvitationLook,
  OneTimeCodeState,
  OneTimeSecret,
  PegWall,
  PupilSecrets,
  SpareCodes,
  type ChangeDoor,
  type ChangePassword,
  type PrintCards,
} from '@nibquill/contract'
import { useQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'

/** How often a tablet looks whether the door is still open, and a teacher's page who is in. */
const LOOK_AGAIN_MS = 20_000

export const usePegs = () =>
  useAsk(['accounts', 'pegs'], '/accounts/pegs', PegWall, {
    refetchInterval: () => LOOK_AGAIN_MS,
    fresh: true,
  })

const doorPath = (classId: string) => `/accounts/classes/${classId}/door`
export const useDoor = (classId: string) =>
  useAsk(['accounts', 'door', classId], doorPath(classId), ClassDoor, {
    refetchInterval: () => LOOK_AGAIN_MS,
    fresh: true,
  })
export const useChangeDoor = (classId: string) =>
  useChange((change: ChangeDoor) => api.patch(doorPath(classId), ClassDoor, change), ['accounts'])
/** @param what - `sessions`, `sessions/<id>` or `tablets/<id>` */
export const useEnd = (classId: string) =>
  useChange(
    (what: string) => api.remove(`/accounts/classes/${classId}/${what}`, ClassDoor),
    ['accounts'],
  )
export const useSecrets = (classId: string) =>
  useAsk(['accounts', 'secrets', classId], `/accounts/classes/${classId}/secrets`, PupilSecrets)
export const useNewSecret = (classId: string) =>
  useChange(
    (pupilId: string) => api.post(`/accounts/classes/${classId}/secrets/${pupilId}`, PupilSecrets),
    ['accounts'],
  )

/** How often a sheet being drawn is looked at; live events tell sooner. */
const STILL_DRAWING_MS = 1500
export const isBeingDrawn = ({ state }: CardSheet): boolean =>
  state === 'waiting' || state === 'drawing'
export const useCardSheets = () =>
  useAsk(['accounts', 'cards'], '/accounts/cards', CardSheets, {
    refetchInterval: (sheets) => (sheets?.some(isBeingDrawn) ? STILL_DRAWING_MS : false),
    fresh: true,
  })
export const useOrderCards = () =>
  useChange((order: PrintCards) => api.post('/accounts/cards', CardSheet, order), ['accounts'])

export const useForgotten = () =>
  useChange((email: string) => api.post('/accounts/password-forgotten', Done, { email }), [])
export const useMailCode = () =>
  useChange((email: string) => api.post('/accounts/mail-codes', Done, { email }), [])
export const useChangePassword = () =>
  useChange((body: ChangePassword) => api.post('/accounts/password', Done, body), [])

/** Asked anew each time: it may have ended. */
export const useInvitation = (token: string) =>
  useQuery({
    queryKey: ['accounts', 'invitation', token],
    queryFn: () => api.post('/accounts/invitation', InvitationLook, { token }),
    gcTime: 0,
    retry: false,
  })

const CODES = '/accounts/one-time-codes'
export const useCodes = () => useAsk(['accounts', 'codes'], CODES, OneTimeCodeState)
export const useBeginCodes = () =>
  useChange((password: string) => api.post(`${CODES}/begin`, OneTimeSecret, { password }), [])
export const useConfirmCodes = () =>
  useChange((code: string) => api.post(`${CODES}/confirm`, SpareCodes, { code }), ['accounts'])
export const useCodesOff = () =>
  useChange(
    (password: string) => api.post(`${CODES}/off`, OneTimeCodeState, { password }),
    ['accounts'],
  )
