import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, Failure, type Schemas } from '../../api/client'

export type SetUp = Schemas['ClassSetUp']
export type PlayerSetUp = Schemas['PlayerSetUp']
export type Conventions = Schemas['Conventions']
/** Row is a player of a list as it would be taken in. */
export type Row = Schemas['RosterRow']
export type Preview = { format: string; columns: { name: string; meaning: string }[]; rows: Row[] }

export const setUpQuery = (classId: string) =>
  queryOptions({
    queryKey: ['set-up', classId],
    queryFn: () => answer(api.GET('/classes/{class}/set-up', { params: { path: { class: classId } } })),
  })

/** useChange makes a change whose answer is the whole set-up. */
function useChange<T>(classId: string, mutationFn: (body: T) => Promise<SetUp>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn,
    onSuccess: (setUp) => {
      queries.setQueryData(setUpQuery(classId).queryKey, setUp)
      void queries.invalidateQueries({ queryKey: ['today', classId] })
    },
  })
}

const at = (classId: string) => ({ params: { path: { class: classId } } })

export const useSaveSettings = (classId: string) =>
  useChange(classId, (body: Schemas['SettingsInputBody']) =>
    answer(api.PUT('/classes/{class}/settings', { ...at(classId), body })),
  )

export const useSaveRoster = (classId: string) =>
  useChange(classId, (rows: Row[]) => answer(api.POST('/classes/{class}/roster', { ...at(classId), body: { rows } })))

export const useTakeOff = (classId: string) =>
  useChange(classId, (player: string) =>
    answer(api.DELETE('/classes/{class}/roster/{player}', { params: { path: { class: classId, player } } })),
  )

export const useAddException = (classId: string) =>
  useChange(classId, (body: Schemas['ExceptionInputBody']) =>
    answer(api.POST('/classes/{class}/exceptions', { ...at(classId), body })),
  )

export const useEndException = (classId: string) =>
  useChange(classId, (exception: string) =>
    answer(api.DELETE('/classes/{class}/exceptions/{exception}', { params: { path: { class: classId, exception } } })),
  )

export const useArchive = (classId: string) =>
  useChange(classId, () => answer(api.POST('/classes/{class}/archive', at(classId))))

export function useCreateClass() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { name: string; like?: string; keep: string[] }) => answer(api.POST('/classes', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['classes'] }),
  })
}

export function usePreviewRoster(classId: string) {
  return useMutation({
    mutationFn: async (file: File): Promise<Preview> => {
      const response = await fetch(`/api/classes/${classId}/roster/preview`, { method: 'POST', body: file })
      const said = await response.json()
      if (!response.ok) throw new Failure(response.status, said)
      return said
    },
  })
}

/** exampleQuery works a small example out under conventions that are being set. */
export const exampleQuery = (classId: string, conventions: Conventions, instrument: string, stage: number) =>
  queryOptions({
    queryKey: ['example', classId, conventions, instrument, stage],
    queryFn: () =>
      answer(api.POST('/classes/{class}/example', { ...at(classId), body: { conventions, instrument, stage } })),
    placeholderData: keepPreviousData,
    retry: false,
  })

export const useShareClass = (classId: string) =>
  useChange(classId, (email: string) =>
    answer(api.POST('/classes/{class}/directors', { ...at(classId), body: { email } })),
  )
