import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { newId } from '../../api/ids'

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

export type Act = Schemas['ActInputBody']

/** useComment says something of a take, under a number of its own, so that sending it twice says it once. */
export function useComment(takeId: string) {
  return useMutation({
    mutationFn: (act: Act) =>
      answer(api.PUT('/takes/{take}/acts/{act}', { params: { path: { take: takeId, act: newId() } }, body: act })),
    onSuccess: useKept(),
  })
}

export const othersQuery = (takeId: string) =>
  queryOptions({
    queryKey: ['others', takeId],
    queryFn: () => answer(api.GET('/takes/{take}/others', { params: { path: { take: takeId } } })),
  })

export const spectrogramQuery = (takeId: string) =>
  queryOptions({
    queryKey: ['spectrogram', takeId],
    queryFn: () => answer(api.GET('/takes/{take}/spectrogram', { params: { path: { take: takeId } } })),
    staleTime: Number.POSITIVE_INFINITY,
  })

export type Word = Schemas['ReviewInputBody']['result']

export function useOverrule(takeId: string) {
  return useMutation({
    mutationFn: (result: Word) =>
      answer(api.PUT('/takes/{take}/review', { params: { path: { take: takeId } }, body: { result } })),
    onSuccess: useKept(),
  })
}
