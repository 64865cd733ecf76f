import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { useEntered } from '../signin'

/** Somebody who comes in without an account. */
export type Pass = Schemas['PassView']
/** What a new pass is to be. */
export type NewPass = Schemas['NewPassInputBody']

/** passesQuery lists who comes into a class by a pass. */
export const passesQuery = (classId: string) =>
  queryOptions({
    queryKey: ['passes', classId],
    queryFn: () => answer(api.GET('/classes/{class}/passes', { params: { path: { class: classId } } })),
  })

/** useAddPass makes a pass; its words are answered once. */
export function useAddPass(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: NewPass) =>
      answer(api.POST('/classes/{class}/passes', { params: { path: { class: classId } }, body })),
    // The words stay with whoever made it, and do not come back with the list.
    onSuccess: ({ passes }) => queries.setQueryData(passesQuery(classId).queryKey, { passes }),
  })
}

/** useEndPass ends a pass, and whoever is signed in by it. */
export function useEndPass(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (pass: string) =>
      answer(api.DELETE('/classes/{class}/passes/{pass}', { params: { path: { class: classId, pass } } })),
    onSuccess: (left) => queries.setQueryData(passesQuery(classId).queryKey, left),
  })
}

/** usePassSignIn lets in whoever has the words of a pass. */
export function usePassSignIn() {
  return useMutation({
    mutationFn: (body: { code: string; shared: boolean }) => answer(api.POST('/sign-in/pass', { body })),
    onSuccess: useEntered(),
  })
}

/** childQuery is how a family's child has grown. */
export const childQuery = (player: string) =>
  queryOptions({
    queryKey: ['child', player],
    queryFn: () => answer(api.GET('/players/{player}/growth', { params: { path: { player } } })),
  })
