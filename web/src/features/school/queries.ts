import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'

/** A school as its administrator sees it. */
export type School = Schemas['SchoolPage']
/** Somebody of a school. */
export type Member = Schemas['SchoolMember']

const at = (school: string) => ({ params: { path: { school } } })

/** schoolQuery asks for a school's people and how it runs. */
export const schoolQuery = (school: string) =>
  queryOptions({ queryKey: ['school', school], queryFn: () => answer(api.GET('/schools/{school}', at(school))) })

/** auditQuery asks what was done in the days up to today. */
export const auditQuery = (school: string, days: number) =>
  queryOptions({
    queryKey: ['audit', school, days],
    queryFn: () => answer(api.GET('/schools/{school}/audit', { params: { path: { school }, query: { days } } })),
  })

/** useChangeSchool does something with a school; the answer is the whole page. */
function useChangeSchool<T>(school: string, change: (value: T) => Promise<School>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: (page) => {
      queries.setQueryData(schoolQuery(school).queryKey, page)
      void queries.invalidateQueries({ queryKey: ['audit', school] })
    },
  })
}

/** useAddPerson makes an account with a password that is shown once. */
export const useAddPerson = (school: string) =>
  useChangeSchool(school, (body: Schemas['NewPersonInputBody']) =>
    answer(api.POST('/schools/{school}/people', { ...at(school), body })),
  )

/** useAskConsent says whether homes are asked before anything is recorded. */
export const useAskConsent = (school: string) =>
  useChangeSchool(school, (needed: boolean) =>
    answer(api.PUT('/schools/{school}/consent', { ...at(school), body: { needed } })),
  )

/** useSaveSignOn sets how the school's people sign on; its provider is asked at once. */
export const useSaveSignOn = (school: string) =>
  useChangeSchool(school, (body: Schemas['SignOnInputBody']) =>
    answer(api.PUT('/schools/{school}/sign-on', { ...at(school), body })),
  )

/** useEndSignOn ends it. */
export const useEndSignOn = (school: string) =>
  useChangeSchool(school, () => answer(api.DELETE('/schools/{school}/sign-on', at(school))))

const of = (school: string, person: string) => ({ params: { path: { school, person } } })

/** useResetPassword gives somebody a new password, shown once. */
export const useResetPassword = (school: string) =>
  useChangeSchool(school, (person: string) =>
    answer(api.POST('/schools/{school}/people/{person}/password', of(school, person))),
  )

/** useSetRights names an administrator, or ends it. */
export const useSetRights = (school: string) =>
  useChangeSchool(school, ({ person, administers }: { person: string; administers: boolean }) =>
    answer(api.PUT('/schools/{school}/people/{person}', { ...of(school, person), body: { administers } })),
  )

/** useRemovePerson ends somebody's part in the school. */
export const useRemovePerson = (school: string) =>
  useChangeSchool(school, (person: string) =>
    answer(api.DELETE('/schools/{school}/people/{person}', of(school, person))),
  )
