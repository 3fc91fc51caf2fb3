import { ClassDetail, PupilDetail, SchoolClasses, SchoolYears, type ChangeClass } from '@nibquill/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/api'

export const useClasses = () =>
  useQuery({ queryKey: ['school', 'classes'], queryFn: ({ signal }) => api.get('/school/classes', SchoolClasses, signal) })
export const useClass = (classId: string) =>
  useQuery({
    queryKey: ['school', 'classes', classId],
    queryFn: ({ signal }) => api.get(`/school/classes/${classId}`, ClassDetail, signal),
    enabled: classId !== '',
  })
export const usePupil = (pupilId: string) =>
  useQuery({
    queryKey: ['school', 'pupils', pupilId],
    queryFn: ({ signal }) => api.get(`/school/pupils/${pupilId}`, PupilDetail, signal),
  })
export const useYears = () =>
  useQuery({ queryKey: ['school', 'years'], queryFn: ({ signal }) => api.get('/school/years', SchoolYears, signal) })
export function useChangeClass(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (change: ChangeClass) => api.patch(`/school/classes/${classId}`, ClassDetail, change),
    onSettled: () => queries.invalidateQueries({ queryKey: ['school'] }),
  })
}
