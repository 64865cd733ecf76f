import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'

/** knownQuery asks which notes a class knows in a week. */
export const knownQuery = (classId: string, monday: string) =>
  queryOptions({
    queryKey: ['known', classId, monday],
    queryFn: () =>
      answer(api.GET('/classes/{class}/weeks/{monday}/known', { params: { path: { class: classId, monday } } })),
    staleTime: 0,
  })

/** useSaveKnown keeps which notes a class knows; what is drawn of its steps is drawn anew. */
export function useSaveKnown(classId: string, monday: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['Book']) =>
      answer(api.PUT('/classes/{class}/weeks/{monday}/known', { params: { path: { class: classId, monday } }, body })),
    onSuccess: (known) => {
      queries.setQueryData(knownQuery(classId, monday).queryKey, known)
      for (const key of ['day', 'notation', 'today']) void queries.invalidateQueries({ queryKey: [key, classId] })
    },
  })
}
