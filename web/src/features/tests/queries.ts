import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../../api/client'

/** testsQuery asks for a class's tests, the next due first. */
export const testsQuery = (classId: string) =>
  queryOptions({
    queryKey: ['tests', classId],
    queryFn: () => answer(api.GET('/classes/{class}/tests', { params: { path: { class: classId } } })),
    staleTime: 15_000,
  })

/** testQuery asks who has handed a test in, and how it went. */
export const testQuery = (classId: string, step: string) =>
  queryOptions({
    queryKey: ['test', classId, step],
    queryFn: () => answer(api.GET('/classes/{class}/tests/{step}', { params: { path: { class: classId, step } } })),
    refetchInterval: 30_000,
  })
