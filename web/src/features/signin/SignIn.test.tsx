import 'fake-indexeddb/auto'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { keep, kept } from '../../device/kept'
import { hasKey, keepKey } from '../../device/vault'
import { open } from '../../testing/page'
import { log, refuse, serve, unreachable } from '../../testing/server'
import { oweSignOut, signOutIsOwed } from './owed'
import { meQuery } from './queries'
import { isShared } from './SharedDevice'
import { SignIn } from './SignIn'
import { SignOut } from './SignOut'
import { WhereSignedIn } from './WhereSignedIn'

const key = btoa('k'.repeat(32))
const ada = { role: 'player', name: 'Ada T.', class: 'Ferry Bell Winds', id: 'ada' } as const
const names = { class: 'Ferry Bell Winds', players: [{ id: 'ada', name: 'Ada T.', instrument: 'B♭ clarinet' }] }

function school(more: Parameters<typeof serve>[0] = {}) {
  serve({
    'POST /sign-in/class': ({ body }) =>
      (body as { code: string }).code === 'FERRY-BELL'
        ? names
        : refuse(404, 'No class has this code. Look at your card again.'),
    'POST /sign-in/player': ({ body }) =>
      (body as { pin: string }).pin === '2468' ? ada : refuse(401, 'That is not the PIN of this name. Try again.'),
    'POST /sign-in/director': () => ({ role: 'director', name: 'Odile Farrow', class: '' }),
    'POST /sign-out': () => undefined,
    'GET /practice/key': () => ({ key }),
    ...more,
  })
}

const toThePIN = async () => {
  fireEvent.change(screen.getByLabelText('Class code'), { target: { value: 'FERRY-BELL' } })
  fireEvent.click(screen.getByRole('button', { name: 'Find my class' }))
  fireEvent.click(await screen.findByRole('button', { name: /Ada T\./ }))
}
const enter = (pin: string) => {
  fireEvent.change(screen.getByLabelText('Your PIN'), { target: { value: pin } })
  fireEvent.click(screen.getByRole('button', { name: 'Start' }))
}

beforeEach(() => school())

describe('a player signs in', () => {
  it('by the code on the card, a name and four numbers, and the device may keep takes from then on', async () => {
    const { client, where } = open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    enter('2468')
    await waitFor(() => expect(where()).toBe('/'))
    expect(client.getQueryData(meQuery.queryKey)).toEqual(ada)
    expect(await hasKey('ada')).toBe(true)
    expect(await kept('me')).toEqual(ada)
  })

  it('is told where the browser keeps no sign-in', async () => {
    school({ 'GET /me': () => ({ role: 'nobody', name: '', class: '' }) })
    open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    enter('2468')
    expect((await screen.findByRole('alert')).textContent).toContain('did not keep your sign-in')
  })

  it('by the square on the card: the names come at once, and no code stays in the address', async () => {
    window.history.replaceState(null, '', '/sign-in#FERRY-BELL')
    open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    expect(await screen.findByRole('button', { name: /Ada T\./ })).toBeTruthy()
    expect(window.location.hash).toBe('')
  })

  it('and is told what is wrong with the code, or the PIN, and loses nothing', async () => {
    const { where } = open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    fireEvent.change(screen.getByLabelText('Class code'), { target: { value: 'FERRY' } })
    fireEvent.click(screen.getByRole('button', { name: 'Find my class' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Look at your card')
    await toThePIN()
    enter('1111')
    expect((await screen.findByRole('alert')).textContent).toContain('not the PIN')
    fireEvent.click(screen.getByRole('button', { name: 'That is not me' }))
    await screen.findByText('Ferry Bell Winds: who are you?')
    expect(where()).toBe('/sign-in')
  })

  it('without leaving anything of the one before on the device', async () => {
    await keepKey('bo', new Uint8Array(32))
    await keep('practice', { of: 'bo' })
    open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    enter('2468')
    await waitFor(async () => expect(await hasKey('ada')).toBe(true))
    expect(await hasKey('bo')).toBe(false)
    expect(await kept('practice')).toBeUndefined()
  })

  it('and is in, also where the device can keep nothing', async () => {
    school({ 'GET /practice/key': () => refuse(500, 'no key today') })
    const { where } = open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    enter('2468')
    await waitFor(() => expect(where()).toBe('/'))
  })
})

describe('a shared device', () => {
  it('says so when it signs in, and remembers it', async () => {
    let shared: unknown
    school({
      'POST /sign-in/player': ({ body }) => {
        shared = (body as { shared: boolean }).shared
        return ada
      },
    })
    open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    fireEvent.click(screen.getByRole('checkbox', { name: /Others use this device/ }))
    enter('2468')
    await waitFor(() => expect(shared).toBe(true))
    expect(isShared()).toBe(true)
  })

  it('is signed out of from another one', async () => {
    const device = (id: string, more: object) => ({
      id,
      browser: 'Firefox on Windows',
      began: '2026-11-20T08:00:00Z',
      seen: '2026-11-26T08:00:00Z',
      this: false,
      ...more,
    })
    school({
      'GET /me/sessions': () => ({ sessions: [device('here', { this: true }), device('there', {})] }),
      'DELETE /me/sessions/there': () => ({ sessions: [device('here', { this: true })] }),
    })
    open(<WhereSignedIn />)
    fireEvent.click(screen.getByRole('button', { name: 'My sign-in' }))
    fireEvent.click(await screen.findByRole('button', { name: /Sign out of Firefox on Windows/ }))
    await waitFor(() => expect(screen.queryByRole('button', { name: /Sign out of/ })).toBeNull())
  })
})

describe('signing out', () => {
  it('tells the server, and the device forgets', async () => {
    await keepKey('ada', new Uint8Array(32))
    const { client, where } = open(<SignOut player="ada" />, { at: '/practice' })
    fireEvent.click(screen.getByRole('button', { name: 'Sign out' }))
    await waitFor(() => expect(where()).toBe('/'))
    expect(client.getQueryData(meQuery.queryKey)).toMatchObject({ role: 'nobody' })
    expect(await hasKey('ada')).toBe(false)
    expect(signOutIsOwed()).toBe(false)
  })

  it('works without a network, and the server is told before anybody is believed to be signed in', async () => {
    school({ 'POST /sign-out': unreachable })
    const { where, client } = open(<SignOut player="ada" />, { at: '/practice' })
    fireEvent.click(screen.getByRole('button', { name: 'Sign out' }))
    await waitFor(() => expect(where()).toBe('/'))
    expect(signOutIsOwed()).toBe(true)
    expect(await client.fetchQuery({ ...meQuery, staleTime: 0 })).toMatchObject({ role: 'nobody' })
    school({ 'GET /me': () => ({ role: 'nobody', name: '', class: '' }) })
    await client.fetchQuery({ ...meQuery, staleTime: 0 })
    expect(log).toEqual(['POST /sign-out', 'GET /me'])
    expect(signOutIsOwed()).toBe(false)
  })

  it('is forgiven by signing in again', async () => {
    oweSignOut()
    const { where } = open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
    await toThePIN()
    enter('2468')
    await waitFor(() => expect(where()).toBe('/'))
    expect(signOutIsOwed()).toBe(false)
  })
})

describe('who one is', () => {
  it('is remembered without a network', async () => {
    await keep('me', ada)
    school({ 'GET /me': unreachable })
    const { client } = open(<p />)
    expect(await client.fetchQuery(meQuery)).toEqual(ada)
  })

  it('is what the server says where there is one', async () => {
    await keep('me', ada)
    school({ 'GET /me': () => refuse(401, 'Sign in first.') })
    const { client } = open(<p />)
    await expect(client.fetchQuery(meQuery)).rejects.toMatchObject({ status: 401 })
  })
})

it('a director signs in by email', async () => {
  const { where } = open(<SignIn />, { at: '/sign-in', path: '/sign-in' })
  fireEvent.mouseDown(screen.getByRole('tab', { name: 'I direct' }), { button: 0 })
  fireEvent.change(await screen.findByLabelText('Email'), { target: { value: 'odile@school.example' } })
  fireEvent.change(screen.getByLabelText('Password'), { target: { value: 'low tide' } })
  fireEvent.click(screen.getByRole('button', { name: 'Sign in' }))
  await waitFor(() => expect(where()).toBe('/'))
})
