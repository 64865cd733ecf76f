import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'

/** A step of a plan as the director edits it. */
export type Item = Schemas['PlanItem']
/** A week at its newest revision, with who changed what. */
export type Plan = Schemas['PlanView']
/** A kind of exercise with its parameters. */
export type Kind = Schemas['Kind']
/** An instrument of the class at one stage, and how many play it. */
export type Member = Schemas['BandMember']
/** Where a step is played. Items may be for both; a day is looked at for one. */
export type At = 'class' | 'home'

/** planQuery is never fresh: a colleague may be changing the same week. */
export const planQuery = (classId: string, monday: string) =>
  queryOptions({
    queryKey: ['plan', classId, monday],
    queryFn: () => answer(api.GET('/classes/{class}/plans/{monday}', { params: { path: { class: classId, monday } } })),
    staleTime: 0,
  })

/** catalogueQuery is asked once a visit: kinds change with the program. */
export const catalogueQuery = queryOptions({
  queryKey: ['catalogue'],
  queryFn: () => answer(api.GET('/catalogue')),
  staleTime: Number.POSITIVE_INFINITY,
})

/** dayQuery adds a day of items up for the whole class. */
export const dayQuery = (classId: string, monday: string, items: Item[], at: At) =>
  queryOptions({
    queryKey: ['day', classId, monday, items, at],
    queryFn: () =>
      answer(
        api.POST('/classes/{class}/days/work', {
          params: { path: { class: classId } },
          body: { items, at, minutes: 0, monday },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

/**
 * notationQuery draws a step for one member. Its key is all that the drawing follows
 * from, so that going back to a setting is at once.
 */
export const notationQuery = (classId: string, monday: string, item: Item, member: Member) =>
  queryOptions({
    queryKey: [
      'notation',
      classId,
      monday,
      item.kind,
      item.parameters,
      member.instrument,
      member.variant,
      member.stage,
    ],
    queryFn: () =>
      answer(
        api.POST('/classes/{class}/steps/notation', {
          params: { path: { class: classId } },
          body: {
            kind: item.kind,
            parameters: item.parameters,
            instrument: member.instrument,
            variant: member.variant,
            stage: member.stage,
            monday,
          },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

/** suggestionsQuery asks what the fortnight before a week calls for. */
export const suggestionsQuery = (classId: string, monday: string) =>
  queryOptions({
    queryKey: ['suggestions', classId, monday],
    queryFn: () =>
      answer(api.GET('/classes/{class}/plans/{monday}/suggestions', { params: { path: { class: classId, monday } } })),
  })

/** templatesQuery asks for the director's own weeks to begin from. */
export const templatesQuery = queryOptions({
  queryKey: ['templates'],
  queryFn: () => answer(api.GET('/templates')),
})

/** An exercise that the director keeps under a name. */
export type Own = Schemas['OwnExercise']

/** ownQuery asks for the director's own exercises, which all of their classes have. */
export const ownQuery = queryOptions({
  queryKey: ['own-exercises'],
  queryFn: () => answer(api.GET('/exercises')),
})

/** useKeepOwn keeps a step under a name; one of that name is replaced. */
export function useKeepOwn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['OwnExerciseInputBody']) => answer(api.POST('/exercises', { body })),
    onSuccess: (all) => queries.setQueryData(ownQuery.queryKey, all),
  })
}

/** useForgetOwn forgets an own exercise; steps that were made of it stay. */
export function useForgetOwn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (exercise: string) => answer(api.DELETE('/exercises/{exercise}', { params: { path: { exercise } } })),
    onSuccess: (all) => queries.setQueryData(ownQuery.queryKey, all),
  })
}

/** useFit makes a day fit its minutes; the core chooses, and says what it cut. */
export function useFit(classId: string) {
  return useMutation({
    mutationFn: (body: Schemas['DayAsked']) =>
      answer(api.POST('/classes/{class}/days/fit', { params: { path: { class: classId } }, body })),
  })
}

/**
 * useSavePlan saves a week from the revision it was made from; the server brings
 * together what somebody else changed meanwhile, or answers 409.
 */
export function useSavePlan(classId: string, monday: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { based_on_revision: number; name: string; items: Item[] }) =>
      answer(api.PUT('/classes/{class}/plans/{monday}', { params: { path: { class: classId, monday } }, body })),
    onSuccess: (plan) => {
      queries.setQueryData(planQuery(classId, monday).queryKey, plan)
      void queries.invalidateQueries({ queryKey: ['today', classId] })
    },
  })
}

/** useSaveTemplate keeps a week under a name, for other weeks and classes. */
export function useSaveTemplate() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { name: string; items: Item[] }) => answer(api.POST('/templates', { body })),
    onSuccess: (all) => queries.setQueryData(templatesQuery.queryKey, all),
  })
}

/** soundOf is where a step can be heard as an instrument plays it. */
export function soundOf(classId: string, monday: string, item: Item, member: Member): string {
  const query = new URLSearchParams({
    kind: item.kind,
    parameters: JSON.stringify(item.parameters),
    instrument: member.instrument,
    variant: member.variant,
    stage: String(member.stage),
    monday,
  })
  return `/api/classes/${classId}/steps/sound.wav?${query}`
}

/** modelsQuery asks what the class's directors have played of a step: it goes by what the step asks for. */
export const modelsQuery = (classId: string, item: Item) =>
  queryOptions({
    queryKey: ['models', classId, item.kind, item.parameters],
    queryFn: () =>
      answer(
        api.POST('/classes/{class}/models', {
          params: { path: { class: classId } },
          body: { kind: item.kind, parameters: item.parameters },
        }),
      ),
    retry: false,
  })

/** useDropModel lets a model go. */
export function useDropModel(classId: string, item: Item) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (model: string) =>
      answer(api.DELETE('/classes/{class}/models/{model}', { params: { path: { class: classId, model } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: modelsQuery(classId, item).queryKey }),
  })
}
