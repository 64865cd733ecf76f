import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { newId } from '../../api/ids'

/** A take with all that is shown of it. */
export type TakeDetail = Schemas['TakeDetail']

/** askAgain is how soon a take that is being listened to is asked for again. */
const askAgain = 250 // milliseconds

/** takeQuery asks again while the take waits for its word, and stops then. */
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

/** What a director does to a take, under a number of its own. */
export type Act = Schemas['ActInputBody']

/** useComment says something of a take, under a number of its own, so that sending it twice says it once. */
export function useComment(takeId: string) {
  return useMutation({
    mutationFn: (act: Act) =>
      answer(api.PUT('/takes/{take}/acts/{act}', { params: { path: { take: takeId, act: newId() } }, body: act })),
    onSuccess: useKept(),
  })
}

/** othersQuery finds takes to compare with. */
export const othersQuery = (takeId: string) =>
  queryOptions({
    queryKey: ['others', takeId],
    queryFn: () => answer(api.GET('/takes/{take}/others', { params: { path: { take: takeId } } })),
  })

/**
 * spectrogramQuery is asked when it is opened: half a megabyte that most takes never
 * need. It does not change.
 */
export const spectrogramQuery = (takeId: string) =>
  queryOptions({
    queryKey: ['spectrogram', takeId],
    queryFn: () => answer(api.GET('/takes/{take}/spectrogram', { params: { path: { take: takeId } } })),
    staleTime: Number.POSITIVE_INFINITY,
  })

/** A director's word; "measured" lets the measured one stand again. */
export type Word = Schemas['ReviewInputBody']['result']

/** useOverrule gives the director's word, beside the measured one. */
export function useOverrule(takeId: string) {
  return useMutation({
    mutationFn: (result: Word) =>
      answer(api.PUT('/takes/{take}/review', { params: { path: { take: takeId } }, body: { result } })),
    onSuccess: useKept(),
  })
}
