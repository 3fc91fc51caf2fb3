import { Tasks } from '@nibquill/contract'
import { queryOptions, useQuery } from '@tanstack/react-query'
import { api } from '../api/api'

export const tasksQuery = queryOptions({ queryKey: ['tasks'], queryFn: ({ signal }) => api.get('/tasks', Tasks, signal) })
export const useTasks = () => useQuery(tasksQuery)
