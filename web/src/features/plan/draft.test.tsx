import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { log, refuse, serve, unreachable } from '../../testing/server'
import { useDraft } from './draft'
import type { Item, Plan } from './queries'

const item = (key: string): Item => ({
  key,
  kind: 'long-tone-counted',
  parameters: {},
  times: 1,
  days: ['mon', 'tue'],
  at: 'both',
  wanted: 2,
  pinned: false,
  for: [],
  why: '',
})

const plan = { monday: '2026-11-23', name: 'This week', revision: 3, items: [item('a')] } as unknown as Plan

/** edit opens the draft as the page does. */
function edit(of: Plan = plan) {
  const client = new QueryClient({ defaultOptions: { mutations: { retry: false } } })
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  )
  return renderHook(() => useDraft('c', of), { wrapper })
}

const keys = (items: Item[]) => items.map((i) => i.key).join('')
const quiet = () => act(() => vi.advanceTimersByTimeAsync(800))

beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }))
afterEach(() => void vi.useRealTimers())

describe('a week being edited', () => {
  it('is saved once, a moment after the last of several changes', async () => {
    const bodies: { based_on_revision: number; items: Item[] }[] = []
    serve({
      'PUT /classes/c/plans/2026-11-23': ({ body }) => {
        bodies.push(body as (typeof bodies)[0])
        return { ...plan, revision: 4, items: (body as Plan).items }
      },
    })
    const { result } = edit()
    expect(result.current.saving).toBe('saved')
    act(() => result.current.change([...result.current.items, item('b')]))
    act(() => result.current.change([...result.current.items, item('c')]))
    expect(result.current.saving).toBe('waiting')
    await quiet()
    await waitFor(() => expect(result.current.saving).toBe('saved'))
    expect(bodies).toHaveLength(1)
    expect(bodies[0]?.based_on_revision).toBe(3)
    expect(keys(bodies[0]?.items ?? [])).toBe('abc')
    act(() => result.current.change([item('z')]))
    await quiet()
    await waitFor(() => expect(bodies).toHaveLength(2))
    expect(bodies[1]?.based_on_revision).toBe(4)
  })

  it('saves what was changed while it was being saved, too', async () => {
    const bodies: { based_on_revision: number; items: Item[] }[] = []
    let answer = () => {}
    serve({
      'PUT /classes/c/plans/2026-11-23': async ({ body }) => {
        bodies.push(body as (typeof bodies)[0])
        if (bodies.length === 1) await new Promise<void>((done) => (answer = done))
        return { ...plan, revision: 3 + bodies.length, items: (body as Plan).items }
      },
    })
    const { result } = edit()
    act(() => result.current.change([item('a'), item('b')]))
    await quiet()
    await waitFor(() => expect(bodies).toHaveLength(1))
    act(() => result.current.change([item('a'), item('b'), item('c')]))
    await act(async () => answer())
    await quiet()
    await waitFor(() => expect(bodies).toHaveLength(2))
    expect(keys(bodies[1]?.items ?? [])).toBe('abc')
    expect(bodies[1]?.based_on_revision).toBe(4)
    await waitFor(() => expect(result.current.saving).toBe('saved'))
  })

  it('goes back and forth', () => {
    serve({})
    const { result } = edit()
    expect(result.current.undo).toBeUndefined()
    act(() => result.current.change([item('a'), item('b')]))
    act(() => result.current.change([item('b')]))
    act(() => result.current.undo?.())
    expect(keys(result.current.items)).toBe('ab')
    act(() => result.current.undo?.())
    expect(keys(result.current.items)).toBe('a')
    act(() => result.current.redo?.())
    expect(keys(result.current.items)).toBe('ab')
    act(() => result.current.change([item('q')]))
    expect(result.current.redo).toBeUndefined()
  })

  it('is kept on the device without a network, and goes on there after the page was closed', async () => {
    serve({ 'PUT /classes/c/plans/2026-11-23': unreachable })
    const first = edit()
    act(() => first.result.current.change([item('a'), item('n')]))
    await quiet()
    await waitFor(() => expect(first.result.current.saving).toBe('offline'))
    first.unmount()
    serve({ 'PUT /classes/c/plans/2026-11-23': ({ body }) => ({ ...plan, ...(body as object), revision: 4 }) })
    const again = edit()
    expect(keys(again.result.current.items)).toBe('an')
    await quiet()
    await waitFor(() => expect(again.result.current.saving).toBe('saved'))
    expect(localStorage.getItem('plan/c/2026-11-23')).toBeNull()
  })

  it('tries again by itself once the network is back', async () => {
    let up = false
    serve({
      'PUT /classes/c/plans/2026-11-23': ({ body }) =>
        up ? { ...plan, ...(body as object), revision: 4 } : unreachable(),
    })
    const { result } = edit()
    act(() => result.current.change([item('n')]))
    await quiet()
    await waitFor(() => expect(result.current.saving).toBe('offline'))
    up = true
    await act(() => vi.advanceTimersByTimeAsync(5_100))
    await waitFor(() => expect(result.current.saving).toBe('saved'))
  })

  it('shows what a colleague changed meanwhile', async () => {
    serve({
      'PUT /classes/c/plans/2026-11-23': () => ({
        ...plan,
        revision: 5,
        merged: true,
        items: [item('a'), item('n'), item('theirs')],
      }),
    })
    const { result } = edit()
    act(() => result.current.change([item('a'), item('n')]))
    await quiet()
    await waitFor(() => expect(result.current.merged).toBe(true))
    expect(keys(result.current.items)).toBe('antheirs')
  })

  it('asks when both changed the same, and loses nothing until it is answered', async () => {
    let conflict = true
    serve({
      'PUT /classes/c/plans/2026-11-23': ({ body }) =>
        conflict ? refuse(409, 'Tobin changed the same step.') : { ...plan, ...(body as object), revision: 9 },
    })
    const { result } = edit()
    act(() => result.current.change([item('mine')]))
    await quiet()
    await waitFor(() => expect(result.current.saving).toBe('conflict'))
    const tries = log.length
    await act(() => vi.advanceTimersByTimeAsync(20_000))
    expect(log).toHaveLength(tries) // it does not press on
    expect(keys(result.current.items)).toBe('mine')
    conflict = false
    act(() => result.current.keepMine())
    await quiet()
    await waitFor(() => expect(result.current.saving).toBe('saved'))
    expect(keys(result.current.items)).toBe('mine')
  })

  it('gives its changes up when theirs are taken', async () => {
    serve({ 'PUT /classes/c/plans/2026-11-23': () => refuse(409, 'Tobin changed the same step.') })
    const { result } = edit()
    act(() => result.current.change([item('mine')]))
    await quiet()
    await waitFor(() => expect(result.current.saving).toBe('conflict'))
    act(() => result.current.takeTheirs())
    expect(keys(result.current.items)).toBe('a')
    expect(result.current.saving).toBe('saved')
    expect(localStorage.getItem('plan/c/2026-11-23')).toBeNull()
  })
})
