import {
  DueAdvice,
  LyingOnCopies,
  Standings,
  Task,
  Tasks,
  Units,
  type ChangeTask,
  type MakeTask,
  type OfferSheet,
  type PutUnit,
  type ReuseUnit,
} from '@nibquill/contract'
import type { InkDocument } from '@nibquill/core/ink/document'
import type { Expected } from '@nibquill/core/ink/sorting'
import { queryOptions, useQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'

export const tasksQuery = queryOptions({
  queryKey: ['tasks'],
  queryFn: ({ signal }) => api.get('/tasks', Tasks, signal),
})
export const useTasks = () => useQuery(tasksQuery)
export const useAllTasks = (closed: boolean) =>
  useAsk(['tasks', closed ? 'all' : 'open'], closed ? '/tasks?closed=1' : '/tasks', Tasks)
export const useTask = (id: string, enabled = true) =>
  useAsk(['tasks', 'one', id], `/tasks/${id}`, Task, { enabled })
export const useStandings = (id: string) =>
  useAsk(['tasks', 'standings', id], `/tasks/${id}/standings`, Standings)
export const useUnits = () => useAsk(['tasks', 'units'], '/tasks/units', Units)
export const useDueAdvice = (classId: string, day: string, time: string) =>
  useAsk(
    ['tasks', 'due', classId, day, time],
    `/tasks/due?classId=${classId}&day=${day}&time=${time}`,
    DueAdvice,
    {
      enabled: classId !== '' && day !== '' && time !== '',
    },
  )

const TOUCHES = ['tasks', 'school'] as const
export const useMakeTask = () =>
  useChange(
    ({ id, input }: { id: string; input: MakeTask }) => api.put(`/tasks/${id}`, Task, input),
    TOUCHES,
  )
export const useChangeTask = () =>
  useChange(
    ({ id, change }: { id: string; change: ChangeTask }) => api.patch(`/tasks/${id}`, Task, change),
    TOUCHES,
  )
export const usePutSheet = (id: string) =>
  useChange(
    (sheet: { ink: InkDocument | null; seenMediaId: string | null; expected: Expected }) =>
      api.put(`/tasks/${id}/sheet`, Task, sheet),
    TOUCHES,
  )
export const useOfferSheet = (id: string) =>
  useChange((offer: OfferSheet) => api.post(`/tasks/${id}/sheet/offer`, Task, offer), TOUCHES)
export const useLying = (id: string) =>
  useAsk(['tasks', 'lying', id], `/tasks/${id}/sheet/lying`, LyingOnCopies)
export const useMoveTask = () =>
  useChange(
    ({ id, move }: { id: string; move: 'close' | 'open' | 'duplicate' }) =>
      api.post(`/tasks/${id}/${move}`, Task),
    TOUCHES,
  )
export const useNudge = (id: string) =>
  useChange(
    (pupilIds: string[]) => api.post(`/tasks/${id}/nudge`, Standings, { pupilIds }),
    TOUCHES,
  )
export const useTick = (id: string) =>
  useChange(
    (on: boolean) =>
      on ? api.post(`/tasks/${id}/tick`, Task) : api.remove(`/tasks/${id}/tick`, Task),
    TOUCHES,
  )
export const usePutUnit = () =>
  useChange(
    ({ id, unit }: { id: string; unit: PutUnit }) => api.put(`/tasks/units/${id}`, Units, unit),
    TOUCHES,
  )
export const useDissolveUnit = () =>
  useChange((id: string) => api.remove(`/tasks/units/${id}`, Units), TOUCHES)
export const useReuseUnit = () =>
  useChange(
    ({ id, reuse }: { id: string; reuse: ReuseUnit }) =>
      api.post(`/tasks/units/${id}/reuse`, Units, reuse),
    TOUCHES,
  )
