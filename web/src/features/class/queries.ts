import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, Failure, type Schemas } from '../../api/client'

/** Everything a director sets for a class, in one answer. */
export type SetUp = Schemas['ClassSetUp']
/** A player as the director edits one, with the section the instrument puts them in. */
export type PlayerSetUp = Schemas['PlayerSetUp']
/** The class's answers to the questions on which teachers differ. */
export type Conventions = Schemas['Conventions']
/** Row is a player of a list as it would be taken in. */
export type Row = Schemas['RosterRow']
/**
 * What a file would do. It is no typed answer: the route takes a file, and the document
 * has no files.
 */
export type Preview = {
  format: string
  columns: ListColumn[]
  rows: Row[]
  /** What a column may be said to mean. */
  meanings: string[]
  /** Of a file of several classes: one has to be chosen. */
  classes: { id: string; title: string; players: number }[]
}
/** A column of a list as it was understood. */
export type ListColumn = Schemas['Column']
/** How a file is to be read, where somebody said so by hand. */
export type HowToRead = { file: File; meanings?: string[]; headings?: 'yes' | 'no'; classId?: string }

/**
 * setUpQuery is under the class's key: every change of the class writes its answer
 * there.
 */
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

/** at is the path of a class, for the calls below. */
const at = (classId: string) => ({ params: { path: { class: classId } } })

/** settingsOf is the class's settings as they are, for a form that changes one of them. */
export const settingsOf = (setUp: SetUp): Schemas['SettingsInputBody'] => ({
  name: setUp.class.name,
  first_lesson: setUp.first_lesson,
  class_minutes: setUp.class_minutes,
  home_minutes: setUp.home_minutes,
  conventions: setUp.conventions,
  tips: setUp.own_tips,
})

/** useSaveSettings saves the conventions, tips, minutes and keeping time of a class. */
export const useSaveSettings = (classId: string) =>
  useChange(classId, (body: Schemas['SettingsInputBody']) =>
    answer(api.PUT('/classes/{class}/settings', { ...at(classId), body })),
  )

/** useRenewPIN gives a player a new PIN, which is answered once. */
export const useRenewPIN = (classId: string) =>
  useMutation({
    mutationFn: (player: string) =>
      answer(api.POST('/classes/{class}/players/{player}/pin', { params: { path: { class: classId, player } } })),
  })

/** useSignOutPlayer ends a player's sessions on all devices. */
export const useSignOutPlayer = (classId: string) =>
  useMutation({
    mutationFn: (player: string) =>
      answer(
        api.DELETE('/classes/{class}/players/{player}/sessions', { params: { path: { class: classId, player } } }),
      ),
  })

/** useRenewCode gives the class a new code. */
export const useRenewCode = (classId: string) =>
  useChange(classId, () => answer(api.POST('/classes/{class}/code', at(classId))))

/** useSaveRoster adds and changes players: all rows, or none while one has a problem. */
export const useSaveRoster = (classId: string) =>
  useChange(classId, (body: { rows: Row[]; columns?: ListColumn[] }) =>
    answer(api.POST('/classes/{class}/roster', { ...at(classId), body })),
  )

/**
 * useTakeOff takes a player off the list. The takes stay; deleting for good is on the
 * player's page.
 */
export const useTakeOff = (classId: string) =>
  useChange(classId, (player: string) =>
    answer(api.DELETE('/classes/{class}/roster/{player}', { params: { path: { class: classId, player } } })),
  )

/** useAddException excuses a player for some days, from one step or from all. */
export const useAddException = (classId: string) =>
  useChange(classId, (body: Schemas['ExceptionInputBody']) =>
    answer(api.POST('/classes/{class}/exceptions', { ...at(classId), body })),
  )

/** useEndException asks the player for everything again, from now on. */
export const useEndException = (classId: string) =>
  useChange(classId, (exception: string) =>
    answer(api.DELETE('/classes/{class}/exceptions/{exception}', { params: { path: { class: classId, exception } } })),
  )

/** useArchive takes the class's code out of use. Everything stays to be read. */
export const useArchive = (classId: string) =>
  useChange(classId, () => answer(api.POST('/classes/{class}/archive', at(classId))))

/** useOpenAgain takes a class out of the archive. */
export const useOpenAgain = (classId: string) =>
  useChange(classId, () => answer(api.DELETE('/classes/{class}/archive', at(classId))))

/**
 * useCreateClass makes a class, empty or like another one, with the players that are
 * kept.
 */
export function useCreateClass() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: { name: string; like?: string; beside?: string; keep: string[] }) =>
      answer(api.POST('/classes', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['classes'] }),
  })
}

/**
 * usePreviewRoster has the server read a file. It goes up as it is: only the server
 * knows the encodings that spreadsheets save.
 */
export function usePreviewRoster(classId: string) {
  return useMutation({
    mutationFn: async ({ file, meanings = [], headings, classId: of }: HowToRead): Promise<Preview> => {
      const asked = new URLSearchParams(meanings.map((m) => ['meaning', m]))
      if (headings) asked.set('headings', headings)
      if (of) asked.set('class_id', of)
      const response = await fetch(`/api/classes/${classId}/roster/preview?${asked}`, { method: 'POST', body: file })
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

/** useInvite asks a colleague to direct the class too, by the email they sign in with. */
export const useInvite = (classId: string) =>
  useChange(classId, (email: string) =>
    answer(api.POST('/classes/{class}/directors', { ...at(classId), body: { email } })),
  )

/** useWithdraw takes an invitation back. */
export const useWithdraw = (classId: string) =>
  useChange(classId, (email: string) =>
    answer(api.DELETE('/classes/{class}/invitations', { params: { path: { class: classId }, query: { email } } })),
  )

/** useRemoveDirector ends a director's right to the class, one's own included. */
export function useRemoveDirector(classId: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (director: string) =>
      answer(api.DELETE('/classes/{class}/directors/{director}', { params: { path: { class: classId, director } } })),
    onSuccess: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ['classes'] }),
        queries.invalidateQueries({ queryKey: setUpQuery(classId).queryKey }),
      ]),
  })
}

/** careQuery asks whose instruments need looking after. */
export const careQuery = (classId: string) =>
  queryOptions({
    queryKey: ['care', classId],
    queryFn: () => answer(api.GET('/classes/{class}/care', { params: { path: { class: classId } } })),
  })
