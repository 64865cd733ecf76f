import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { newId } from '../../api/ids'
import { takeQuery } from '../take/queries'

/** A director's minutes with a class: what was chosen, and how far it has come. */
export type Listening = Schemas['ListeningView']
/** A stretch of one take with everything shown of it. */
export type Excerpt = Schemas['ExcerptView']

/**
 * listeningQuery is asked once: what was chosen stays chosen while it is listened to, or
 * the list would move under the director's hand.
 */
export const listeningQuery = (classId: string) =>
  queryOptions({
    queryKey: ['listening', classId],
    queryFn: () => answer(api.GET('/classes/{class}/listening', { params: { path: { class: classId } } })),
    staleTime: Number.POSITIVE_INFINITY, // chosen once; the place is kept by what is done here
  })

/** useChooseAfresh chooses anew for so many minutes. */
export function useChooseAfresh(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (minutes: number) =>
      answer(
        api.GET('/classes/{class}/listening', {
          params: { path: { class: classId }, query: { minutes, afresh: true } },
        }),
      ),
    onSuccess: (l) => queries.setQueryData(listeningQuery(classId).queryKey, l),
  })
}

/** useKeepPlace tells the server where the listening stands, so that another device goes on there. */
export function useKeepPlace(classId: string) {
  return useMutation({
    mutationFn: (body: { place: number; spent_s: number; listened?: string }) =>
      answer(api.PUT('/classes/{class}/listening', { params: { path: { class: classId } }, body })),
  })
}

/**
 * What a director does to a take. It has a number of its own, so that it can be sent
 * again and undone.
 */
export type Act = Schemas['ActInputBody']

/** Done is an act that can be undone. */
export type Done = { id: string; take: string; says: string }

/** useAct does something to a take: accept, overrule, comment, praise, ask again. */
export function useAct(classId: string) {
  const kept = useTakeKept(classId)
  return useMutation({
    mutationFn: async ({ take, act }: { take: string; act: Act }) => {
      const id = newId()
      const after = await answer(
        api.PUT('/takes/{take}/acts/{act}', { params: { path: { take, act: id } }, body: act }),
      )
      return { id, after }
    },
    onSuccess: ({ after }) => kept(after),
  })
}

/** useUndo takes an act back. */
export function useUndo(classId: string) {
  const kept = useTakeKept(classId)
  return useMutation({
    mutationFn: ({ id, take }: Done) =>
      answer(api.DELETE('/takes/{take}/acts/{act}', { params: { path: { take, act: id } } })),
    onSuccess: kept,
  })
}

/** useTakeKept puts an answered take where the listening shows it. */
export function useTakeKept(classId: string) {
  const queries = useQueryClient()
  return (take: Schemas['TakeDetail']) => {
    queries.setQueryData(takeQuery(take.id).queryKey, take)
    void queries.invalidateQueries({ queryKey: ['today'] })
    queries.setQueryData(listeningQuery(classId).queryKey, (l) => l && { ...l, excerpts: l.excerpts.map(merged(take)) })
  }
}

/**
 * merged puts what the server says of a take into its excerpt. A word that was taken
 * back has to go: absent is not the same as undefined here.
 */
function merged(take: Schemas['TakeDetail']) {
  return (e: Excerpt): Excerpt => {
    if (e.take !== take.id) return e
    const { word: _, ...rest } = e
    return { ...rest, comments: take.comments, ...(take.overruled && { word: take.overruled }) }
  }
}
