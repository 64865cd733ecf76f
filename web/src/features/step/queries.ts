import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'

export type Parameters = Schemas['StepDetail']['parameters']

export const stepQuery = (classId: string, stepId: string) =>
  queryOptions({
    queryKey: ['step', classId, stepId],
    queryFn: () =>
      answer(api.GET('/classes/{class}/steps/{step}', { params: { path: { class: classId, step: stepId } } })),
    staleTime: 0,
    gcTime: 0, // a change must be made from the newest version
  })

/** previewQuery asks how the whole class would read changed parameters. */
export const previewQuery = (classId: string, kind: string, parameters: Parameters) =>
  queryOptions({
    queryKey: ['preview', classId, kind, parameters],
    queryFn: () =>
      answer(
        api.POST('/classes/{class}/steps/preview', {
          params: { path: { class: classId } },
          body: { kind, parameters },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

export function useChangeStep(classId: string, stepId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { based_on_version: number; parameters: Parameters }) =>
      answer(api.PUT('/classes/{class}/steps/{step}', { params: { path: { class: classId, step: stepId } }, body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['today', classId] }),
  })
}
