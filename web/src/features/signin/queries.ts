import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '../../api/client'
import { isOffline, keep, kept, orKept } from '../../device/kept'
import { forgetEveryone, hasKey, keepKey } from '../../device/vault'
import { forgetClass } from '../class/lastClass'
import { forgiveSignOut, oweSignOut, paySignOut, signOutIsOwed } from './owed'

/** Who is signed in on this device, nobody included. */
export type Me = Schemas['Me']

/** What is believed where nothing can be asked. */
const nobody: Me = { role: 'nobody', name: '', class: '' }

/** meQuery is asked before anything is shown: every page is somebody's. */
export const meQuery = queryOptions({ queryKey: ['me'], queryFn: whoAmI })

/** whoAmI asks the server; without a network whoever is signed in on this device stays so. */
async function whoAmI(): Promise<Me> {
  if (signOutIsOwed() && !(await paySignOut())) return nobody
  const before = await kept<Me>('me').catch(() => undefined)
  const me = await orKept('me', () => answer(api.GET('/me')))
  // Who came in through the school's accounts came in past this page: what another one left
  // open on the device is closed now.
  if (before && me.role !== 'nobody' && before.role !== 'nobody' && !isSame(before, me)) {
    await forgetEveryone().catch(console.warn)
    await keep('me', me).catch(console.warn)
  }
  if (me.role === 'player' && me.id) await readyDevice(me.id)
  return me
}

/** isSame tells a returning person from another one. */
const isSame = (a: Me, b: Me) => a.role === b.role && (a.id ?? a.name) === (b.id ?? b.name)

/** readyDevice lets this device keep a player's takes until they are safe; where it cannot, takes go up at once or not at all. */
async function readyDevice(player: string): Promise<void> {
  try {
    if (await hasKey(player)) return
    const { key } = await answer(api.GET('/practice/key'))
    await keepKey(
      player,
      Uint8Array.from(atob(key), (c) => c.charCodeAt(0)),
    )
  } catch (error) {
    console.warn(error)
  }
}

/** classesQuery lists the classes a director may open. */
export const classesQuery = queryOptions({
  queryKey: ['classes'],
  queryFn: async () => (await answer(api.GET('/classes'))).classes,
})

/** wayBack is the page that somebody was at before they had to sign in: one of ours, or home. */
export function wayBack(search: string): string {
  const to = new URLSearchParams(search).get('to') ?? ''
  // "//host" would be another site's.
  return /^\/(?![/\\]|sign-in)/.test(to) ? to : '/'
}

/**
 * keptIn asks once more who is signed in: a browser that keeps no secure cookie over http
 * (WebKit's do not) has forgotten it by now, and would lead back to the sign-in for ever.
 */
async function keptIn(me: Me): Promise<void> {
  if (me.role === 'nobody' || window.location.protocol === 'https:') return
  const now = await answer(api.GET('/me')).catch(() => me) // no answer is no sign of that
  if (now.role === 'nobody')
    throw new Error('This browser did not keep your sign-in. Open this page by https, then try again.')
}

/** useEntered forgets whoever was signed in before, on the page and on the device, and goes home. */
export function useEntered() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  return async (me: Me) => {
    await keptIn(me)
    await forgetEveryone().catch(console.warn)
    if (me.role === 'nobody') forgetClass()
    if (me.role === 'player' && me.id) await readyDevice(me.id)
    if (me.role !== 'nobody') {
      forgiveSignOut()
      await keep('me', me).catch(console.warn)
    }
    queries.removeQueries({ predicate: (q) => q.queryKey[0] !== meQuery.queryKey[0] })
    queries.setQueryData(meQuery.queryKey, me)
    // A director's page is no player's, and theirs begins at home.
    navigate(me.role === 'director' ? wayBack(window.location.search) : '/')
  }
}

/**
 * useDirectorSignIn signs a director in; a wrong password and an unknown address are
 * answered alike.
 */
export function useDirectorSignIn() {
  return useMutation({
    mutationFn: (body: Schemas['DirectorSignInBody']) => answer(api.POST('/sign-in/director', { body })),
    onSuccess: useEntered(),
  })
}

/** beginningQuery asks whether there is a school here at all. */
export const beginningQuery = queryOptions({
  queryKey: ['beginning'],
  queryFn: () => answer(api.GET('/beginning')),
  staleTime: Number.POSITIVE_INFINITY,
})

/** useBeginSchool sets the first school up, and signs its administrator in. */
export function useBeginSchool() {
  return useMutation({
    mutationFn: (body: Schemas['BeginInputBody']) => answer(api.POST('/beginning', { body })),
    onSuccess: useEntered(),
  })
}

/** choicesQuery lists the classes of a player who signed on and is in several. */
export const choicesQuery = queryOptions({
  queryKey: ['choices'],
  queryFn: () => answer(api.GET('/sign-on/choices')),
})

/** useChooseClass goes on into one of them. */
export function useChooseClass() {
  return useMutation({
    mutationFn: (player: string) => answer(api.POST('/sign-on/choices', { body: { player } })),
    onSuccess: useEntered(),
  })
}

/** useForgotten has a letter sent to whoever has an account under an address. */
export const useForgotten = () =>
  useMutation({ mutationFn: (email: string) => answer(api.POST('/sign-in/forgotten', { body: { email } })) })

/** useChoosePassword changes a password by a letter's link. */
export const useChoosePassword = () =>
  useMutation({
    mutationFn: (body: Schemas['ChooseInputBody']) => answer(api.POST('/sign-in/new-password', { body })),
  })

/** mySignInQuery says what stands beside one's password. */
export const mySignInQuery = queryOptions({
  queryKey: ['my-sign-in'],
  queryFn: () => answer(api.GET('/me/sign-in')),
})

/** useOfferCodes makes a secret for an app that makes codes. */
export const useOfferCodes = () => useMutation({ mutationFn: () => answer(api.POST('/me/code-device')) })

/** useMine makes a change of one's own sign-in. */
function useMine<T, A>(mutationFn: (asked: T) => Promise<A>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn,
    onSuccess: () => queries.invalidateQueries({ queryKey: mySignInQuery.queryKey }),
  })
}

/** useSetCodes asks for a device's codes from now on. */
export const useSetCodes = () =>
  useMine((body: Schemas['CodeDeviceInputBody']) => answer(api.PUT('/me/code-device', { body })))

/** useEndCodes asks for none any more. */
export const useEndCodes = () =>
  useMine((code: string) => answer(api.DELETE('/me/code-device', { params: { query: { code } } })))

/** useWantSummary says whether the weekly letter comes. */
export const useWantSummary = () => useMine((weekly: boolean) => answer(api.PUT('/me/summary', { body: { weekly } })))

/** useChangePassword changes one's own password; every other device is signed out. */
export function useChangePassword() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['NewPasswordInputBody']) => answer(api.PUT('/me/password', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: sessionsQuery.queryKey }),
  })
}

/** useOpenClass finds the class of a code, and the names in it to pick from. */
export function useOpenClass() {
  return useMutation({ mutationFn: (code: string) => answer(api.POST('/sign-in/class', { body: { code } })) })
}

/** usePlayerSignIn signs a player in with the PIN of the card. */
export function usePlayerSignIn() {
  return useMutation({
    mutationFn: (body: { code: string; player_id: string; pin: string; shared: boolean }) =>
      answer(api.POST('/sign-in/player', { body })),
    onSuccess: useEntered(),
  })
}

/** invitationsQuery lists the classes a director is asked to direct. */
export const invitationsQuery = queryOptions({
  queryKey: ['invitations'],
  queryFn: async () => (await answer(api.GET('/invitations'))).invitations,
})

/** useAnswerInvitation accepts or declines; an accepted class is among one's own at once. */
export function useAnswerInvitation() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ class: id, accept }: { class: string; accept: boolean }) => {
      const at = { params: { path: { class: id } } }
      return answer(accept ? api.POST('/invitations/{class}', at) : api.DELETE('/invitations/{class}', at))
    },
    onSuccess: (left) => {
      queries.setQueryData(invitationsQuery.queryKey, left.invitations)
      return queries.invalidateQueries({ queryKey: classesQuery.queryKey })
    },
  })
}

/** sessionsQuery lists where one is signed in. */
export const sessionsQuery = queryOptions({
  queryKey: ['sessions'],
  queryFn: async () => (await answer(api.GET('/me/sessions'))).sessions,
})

/** useEndSession ends one of one's own sessions; without a number all but this. */
export function useEndSession() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (id?: string) =>
      answer(
        id ? api.DELETE('/me/sessions/{session}', { params: { path: { session: id } } }) : api.DELETE('/me/sessions'),
      ),
    onSuccess: (left) => queries.setQueryData(sessionsQuery.queryKey, left.sessions),
  })
}

/** useSignOut signs out here at once; where there is no network the server is told as soon as there is. */
export function useSignOut() {
  const entered = useEntered()
  return useMutation({
    mutationFn: async () => {
      oweSignOut()
      await paySignOut().catch((error) => {
        if (!isOffline(error)) throw error
      })
    },
    onSuccess: () => entered(nobody),
  })
}

/** useIsNeeded says whether a school has still to be begun here. */
export function useIsNeeded(): boolean {
  const { data } = useQuery(beginningQuery)
  return data?.needed ?? false
}
