import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, Failure, type Schemas } from '../../api/client'
import { newId } from '../../api/ids'

export type Practice = Schemas['Practice']
export type PracticeStep = Schemas['PracticeStep']

export const practiceQuery = queryOptions({
  queryKey: ['practice'],
  queryFn: () => answer(api.GET('/practice')),
  refetchInterval: (q) => (q.state.data?.steps.some((s) => s.takes.some((t) => t.state === 'waiting')) ? 500 : false), // milliseconds
})

/** HandedIn is a recording on its way to the server, under a number of its own. */
export type HandedIn = { id: string; file: Blob; source: 'microphone' | 'file'; startMs: number }

/** useSend uploads a recording; sending the same one again is harmless. */
export function useSend(step: PracticeStep, onProgress: (share: number) => void) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (h: HandedIn) => send(h, step, onProgress),
    onSuccess: () => queries.invalidateQueries({ queryKey: practiceQuery.queryKey }),
  })
}

/** send uses XMLHttpRequest, which alone tells how much has gone up. */
function send(h: HandedIn, step: PracticeStep, onProgress: (share: number) => void): Promise<string> {
  const query = new URLSearchParams({
    step: step.id,
    version: String(step.version),
    source: h.source,
    start_ms: String(h.startMs),
  })
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('PUT', `/api/takes/${h.id}?${query}`)
    request.responseType = 'json'
    request.upload.onprogress = (e) => onProgress(e.total > 0 ? e.loaded / e.total : 0)
    request.onload = () =>
      request.status < 300 ? resolve(h.id) : reject(new Failure(request.status, request.response ?? {}))
    request.onerror = () => reject(new TypeError('no network'))
    request.send(h.file)
  })
}

/** useSimulate lets a simulated player make the take. */
export function useSimulate(step: PracticeStep) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (standIn: Schemas['SimulateInputBody']['stand_in']) => {
      const id = newId()
      await answer(
        api.POST('/takes/{take}/simulated', {
          params: { path: { take: id } },
          body: { stand_in: standIn, step: step.id, version: step.version },
        }),
      )
      return id
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: practiceQuery.queryKey }),
  })
}

/** useTick keeps which items of a step are done. The page shows it before the server has answered. */
export function useTick(step: PracticeStep) {
  const queries = useQueryClient()
  const key = practiceQuery.queryKey
  return useMutation({
    mutationFn: (done: boolean[]) =>
      answer(
        api.PUT('/practice/steps/{step}/ticks', {
          params: { path: { step: step.id } },
          body: { version: step.version, done },
        }),
      ),
    onMutate: (done) => {
      queries.setQueryData(key, (p) =>
        p ? { ...p, steps: p.steps.map((s) => (s.id === step.id ? { ...s, ticked: done } : s)) } : p,
      )
    },
    onSuccess: (practice) => queries.setQueryData(key, practice),
    onError: () => queries.invalidateQueries({ queryKey: key }),
  })
}

/** useStepBack leads back to the last clean rung. */
export function useStepBack(ladder: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => answer(api.POST('/practice/ladders/{ladder}/back', { params: { path: { ladder } } })),
    onSuccess: (practice) => queries.setQueryData(practiceQuery.queryKey, practice),
  })
}

/** useRaiseFlag tells the director; sending the same one again is harmless. */
export function useRaiseFlag() {
  return useMutation({
    mutationFn: ({
      id,
      ...body
    }: {
      id: string
      kind: 'hurts' | 'dizzy' | 'tired' | 'question'
      words: string
      step: string
    }) => answer(api.PUT('/practice/flags/{flag}', { params: { path: { flag: id } }, body })),
  })
}

/** useBlow lets a simulated player blow into the simulated meter. */
export function useBlow(step: PracticeStep) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (standIn: 'prompt' | 'late' | 'dancing') =>
      answer(
        api.POST('/practice/steps/{step}/blown', {
          params: { path: { step: step.id } },
          body: { version: step.version, stand_in: standIn },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: practiceQuery.queryKey }),
  })
}
