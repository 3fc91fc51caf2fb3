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

/** Sends a list as it is: text that was typed, or a file. Nothing happens to the school yet. */
export async function showClassList(
  content: string | File,
  classId: string | null,
): Promise<ClassList> {
  const response = await fetch(`/api/school/class-lists${classId ? `?classId=${classId}` : ''}`, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: content,
  })
  if (!response.ok) throw await problemFrom(response)
  return (await response.json()) as ClassList
}
export const useShowClassList = (classId: string | null) =>
  useChange((content: string | File) => showClassList(content, classId), [])
export const useClassList = (id: string | null) =>
  useAsk(['school', 'class-lists', id ?? ''], `/school/class-lists/${id}`, ClassList, {
    enabled: id !== null,
    refetchInterval: (list) => (list?.state === 'running' ? 500 : false),
  })
export const useConfirmClassList = () =>
  useChange((id: string) => api.post(`/school/class-lists/${id}/confirm`, ClassList), TOUCHES)

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
