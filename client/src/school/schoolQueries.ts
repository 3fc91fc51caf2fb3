import {
  CardCode,
  ClassDetail,
  ClassList,
  LatestRollOver,
  OpenedMail,
  PostBox,
  PupilDetail,
  RollOverPlan,
  SchoolClasses,
  SchoolFacts,
  SchoolYears,
  Staff,
  TakenLists,
  Strands,
  type AddStaff,
  type ChangeClass,
  type ChangePupil,
  type ChangeSchool,
  type ChangeStaff,
  type DoRollOver,
  type MakeClass,
  type PutPeg,
  type PutYear,
  type Strand,
  Done,
} from '@nibquill/contract'
import { api } from '../api/api'
import { problemFrom } from '../kit/problems'
import { useAsk, useChange } from '../api/queries'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import * as v from 'valibot'

const TOUCHES = ['school', 'folders', 'tasks', 'session'] as const

export const useSchool = () => useAsk(['school', 'facts'], '/school', SchoolFacts)
export const useChangeSchool = () =>
  useChange((change: ChangeSchool) => api.patch('/school', SchoolFacts, change), TOUCHES)
export const useYears = () => useAsk(['school', 'years'], '/school/years', SchoolYears)
export const usePutYear = () =>
  useChange(
    ({ id, year }: { id: string; year: PutYear }) =>
      api.put(`/school/years/${id}`, SchoolYears, year),
    TOUCHES,
  )

export const useClasses = () => useAsk(['school', 'classes'], '/school/classes', SchoolClasses)
export const useClass = (classId: string) =>
  useAsk(['school', 'classes', classId], `/school/classes/${classId}`, ClassDetail, {
    enabled: classId !== '',
  })
export const useMakeClass = () =>
  useChange(
    ({ id, input }: { id: string; input: MakeClass }) =>
      api.put(`/school/classes/${id}`, ClassDetail, input),
    TOUCHES,
  )
export const useChangeClass = (classId: string) =>
  useChange(
    (change: ChangeClass) => api.patch(`/school/classes/${classId}`, ClassDetail, change),
    TOUCHES,
  )
export const usePutPeg = (classId: string) =>
  useChange(
    (input: PutPeg) => api.put(`/school/classes/${classId}/pegs`, ClassDetail, input),
    ['school', 'pieces'],
  )

export const usePupil = (pupilId: string) =>
  useAsk(['school', 'pupils', pupilId], `/school/pupils/${pupilId}`, PupilDetail)
export const useChangePupil = (pupilId: string) =>
  useChange(
    (change: ChangePupil) => api.patch(`/school/pupils/${pupilId}`, PupilDetail, change),
    TOUCHES,
  )
export const useNewCard = (pupilId: string) =>
  useChange(() => api.post(`/accounts/pupils/${pupilId}/card`, CardCode), ['school'])

/** `kind`: which kind of class of a register is a class here, where that was asked. */
type ListToShow = { content: string | File; kind?: string }
/** Sends a list as it is: text that was typed, or a file. Nothing happens to the school yet. */
export async function showClassList(
  { content, kind }: ListToShow,
  classId: string | null,
): Promise<ClassList> {
  const query = new URLSearchParams({
    ...(classId ? { classId } : {}),
    ...(kind === undefined ? {} : { kind }),
  }).toString()
  const response = await fetch(`/api/school/class-lists${query && `?${query}`}`, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: content,
  })
  if (!response.ok) throw await problemFrom(response)
  return v.parse(ClassList, await response.json())
}
export function useShowClassList(classId: string | null) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (list: ListToShow) => showClassList(list, classId),
    onSuccess: (shown) => queries.setQueryData(['school', 'class-lists', shown.id], shown),
  })
}
export const useClassList = (id: string | null) =>
  useAsk(['school', 'class-lists', id ?? ''], `/school/class-lists/${id}`, ClassList, {
    enabled: id !== null,
    refetchInterval: (list) => (list?.state === 'running' ? 500 : false),
  })
export const useConfirmClassList = () =>
  useChange(
    ({ id, leaveOut }: { id: string; leaveOut: number[] }) =>
      api.post(`/school/class-lists/${id}/confirm`, ClassList, { leaveOut }),
    TOUCHES,
  )

export const useTakenLists = () =>
  useAsk(['school', 'class-lists'], '/school/class-lists', TakenLists)
export const useTakeListBack = () =>
  useChange((id: string) => api.post(`/school/class-lists/${id}/take-back`, TakenLists), TOUCHES)

export const useStaff = () => useAsk(['school', 'staff'], '/school/staff', Staff)
export const useAddStaff = () =>
  useChange(
    ({ id, input }: { id: string; input: AddStaff }) =>
      api.put(`/school/staff/${id}`, Staff, input),
    TOUCHES,
  )
export const useChangeStaff = () =>
  useChange(
    ({ id, change }: { id: string; change: ChangeStaff }) =>
      api.patch(`/school/staff/${id}`, Staff, change),
    TOUCHES,
  )

export const useRollOverPlan = (fromYearId: string, toYearId: string) =>
  useAsk(
    ['school', 'roll-over', fromYearId, toYearId],
    `/school/roll-over?fromYearId=${fromYearId}&toYearId=${toYearId}`,
    RollOverPlan,
    {
      enabled: fromYearId !== '' && toYearId !== '',
    },
  )
export const useLatestRollOver = () =>
  useAsk(['school', 'roll-over', 'latest'], '/school/roll-over/latest', LatestRollOver)
export const useTurnYear = () =>
  useChange((turn: DoRollOver) => api.post('/school/roll-over', LatestRollOver, turn), TOUCHES)
export const useUndoTurn = () =>
  useChange((id: string) => api.post(`/school/roll-over/${id}/undo`, Done), TOUCHES)

export const useOpenMail = () =>
  useChange((id: string) => api.post(`/mail/${id}/open`, OpenedMail), ['mail'])
export const usePostBox = () => useAsk(['mail'], '/mail', PostBox)
export const useStrands = () => useAsk(['folders', 'strands'], '/folders/strands', Strands)
export const usePutStrands = () =>
  useChange(
    (strands: readonly Strand[]) => api.put('/folders/strands', Strands, strands),
    ['folders'],
  )
