import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'

export type TakeDetail = Schemas['TakeDetail']

/** askAgain is how soon a take that is being listened to is asked for again. */
const askAgain = 250 // milliseconds

export const takeQuery = (takeId: string) =>
  queryOptions({
    queryKey: ['take', takeId],
    queryFn: () => answer(api.GET('/takes/{take}', { params: { path: { take: takeId } } })),
    refetchInterval: (q) => (q.state.data?.state === 'waiting' ? askAgain : false),
  })

/** useKept puts the answered take where it is shown, and lets the board look again. */
function useKept() {
  const queries = useQueryClient()
  return (take: TakeDetail) => {
    queries.setQueryData(takeQuery(take.id).queryKey, take)
    void queries.invalidateQueries({ queryKey: ['today'] })
  }
}

export function useComment(takeId: string) {
  return useMutation({
    mutationFn: (body: string) =>
      answer(api.POST('/takes/{take}/comments', { params: { path: { take: takeId } }, body: { body } })),
    onSuccess: useKept(),
  })
}

export type Word = Schemas['ReviewInputBody']['result']

export function useOverrule(takeId: string) {
  return useMutation({
    mutationFn: (result: Word) =>
      answer(api.PUT('/takes/{take}/review', { params: { path: { take: takeId } }, body: { result } })),
    onSuccess: useKept(),
  })
}
