import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, Failure, type Schemas } from '../../api/client'

/** What the homes of a class agreed to. */
export type Consents = Schemas['ClassConsents']
/** What a home is asked about. */
export type Purpose = Schemas['ConsentAnswer']['purpose']

const at = (classId: string) => ({ params: { path: { class: classId } } })

/** consentsQuery asks what each home agreed to. */
export const consentsQuery = (classId: string) =>
  queryOptions({
    queryKey: ['consents', classId],
    queryFn: () => answer(api.GET('/classes/{class}/consents', at(classId))),
  })

/** useSaveConsents writes answers down beside those before. */
export function useSaveConsents(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['ConsentsInputBody']) =>
      answer(api.PUT('/classes/{class}/consents', { ...at(classId), body })),
    onSuccess: (all) => queries.setQueryData(consentsQuery(classId).queryKey, all),
  })
}

/** useConsentList brings a list of answers in. */
export function useConsentList(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (file: File): Promise<Consents> => {
      const response = await fetch(`/api/classes/${classId}/consents/list`, { method: 'POST', body: file })
      const said = await response.json()
      if (!response.ok) throw new Failure(response.status, said)
      return said
    },
    onSuccess: (all) => queries.setQueryData(consentsQuery(classId).queryKey, all),
  })
}
