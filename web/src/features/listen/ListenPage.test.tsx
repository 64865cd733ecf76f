import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { log, refuse, serve } from '../../testing/server'
import { excerpt, theClass } from '../../testing/things'
import { ListenPage } from './ListenPage'

const listening = (more: Partial<Schemas['ListeningView']> = {}): Schemas['ListeningView'] => ({
  class: theClass,
  minutes: 5,
  place: 0,
  spent_s: 30,
  excerpts: [excerpt('t1', 'Maro Quenby'), excerpt('t2', 'Teo Marrable')],
  phrases: [{ id: 'p1', words: 'Third finger flat.' }],
  weights: { pain: 100, 'not-yet': 10 },
  left: 4,
  ...more,
})

/** answered is a take as the server tells it after an act. */
const answered = (id: string, more: object = {}) => ({ id, comments: [], ...more })

type Sent = { id: string; body: Record<string, unknown> }
let acts: Sent[]
let undone: string[]
let places: Record<string, unknown>[]

function server(l = listening(), more: Parameters<typeof serve>[0] = {}) {
  acts = []
  undone = []
  places = []
  serve({
    ...more,
    'GET /classes/c/listening': ({ query }) =>
      query.get('afresh')
        ? { ...l, minutes: Number(query.get('minutes')), excerpts: [excerpt('t9', 'Edda Crossmoor')] }
        : l,
    'PUT /classes/c/listening': ({ body }) => void places.push(body as Record<string, unknown>),
    'PUT /takes/*/acts/*': ({ body }, take, id) => {
      acts.push({ id, body: body as Record<string, unknown> })
      const act = body as { kind: string; result?: string; words?: string }
      return answered(take, {
        ...(act.kind === 'overrule' && { overruled: act.result }),
        ...(act.kind !== 'overrule' &&
          act.kind !== 'accept' && {
            comments: [
              {
                id,
                kind: act.kind,
                by: 'Odile',
                body: act.words ?? 'Well done.',
                written_at: '2026-11-26T08:00:00Z',
                take_id: take,
              },
            ],
          }),
      })
    },
    'DELETE /takes/*/acts/*': (_, take, id) => {
      undone.push(id)
      return answered(take)
    },
  })
}

const key = (k: string, more: object = {}) => fireEvent.keyDown(document.body, { key: k, ...more })
const onThePage = async () => {
  const page = open(<ListenPage />, { at: '/class/c/listen', path: '/class/:classId/listen' })
  await screen.findByRole('heading', { name: 'Maro Quenby' })
  return page
}

beforeEach(() => server())

describe('listening', () => {
  it('says who, why, and how much time is left', async () => {
    await onThePage()
    expect(screen.getByTestId('time-left')).toHaveProperty('textContent', '4:30left')
    expect(within(screen.getByRole('list', { name: 'Why' })).getByText(/not yet: C4 jumps/)).toBeTruthy()
    expect(screen.getByRole('img', { name: 'C4 held 8 s, in tune.' })).toBeTruthy()
    const [first] = within(screen.getByRole('list', { name: 'To hear' })).getAllByRole('button')
    expect(first?.getAttribute('aria-current')).toBe('step')
  })

  it('is answered by keys, and every answer is taken back by one', async () => {
    await onThePage()
    key('1')
    await screen.findByText('Measured: not yet.')
    expect(acts[0]?.body).toEqual({ kind: 'overrule', result: 'clean' })
    await screen.findByRole('button', { name: 'Undo your word' })
    key('p')
    await screen.findByText('Well done.')
    await screen.findByRole('button', { name: 'Undo the praise' })
    key('u')
    await waitFor(() => expect(undone).toEqual([acts[1]?.id]))
    await screen.findByRole('button', { name: 'Undo your word' })
    key('u')
    await waitFor(() => expect(screen.queryByText('Measured: not yet.')).toBeNull())
    expect(screen.getByRole('button', { name: 'Undo' })).toHaveProperty('disabled', true)
    key('u') // nothing left
    expect(undone).toHaveLength(2)
  })

  it.each([
    ['a', { kind: 'accept' }],
    ['g', { kind: 'again' }],
    ['4', { kind: 'overrule', result: 'cant-tell' }],
  ])('the key %s means what it says', async (k, body) => {
    await onThePage()
    key(k)
    await waitFor(() => expect(acts.map((a) => a.body)).toEqual([body]))
  })

  it('keeps the place and what was listened to, and ends with what is left', async () => {
    await onThePage()
    key('n')
    await screen.findByRole('heading', { name: 'Teo Marrable' })
    await waitFor(() => expect(places.at(-1)).toEqual({ place: 1, spent_s: 30, listened: 't1' }))
    key('ArrowLeft')
    await screen.findByRole('heading', { name: 'Maro Quenby' })
    key('n')
    key('ArrowRight')
    await screen.findByText(/That was all for these minutes. 4 more takes have a reason/)
    expect(places.at(-1)).toMatchObject({ place: 2, listened: 't2' })
  })

  it('goes on where another device stopped', async () => {
    server(listening({ place: 1, spent_s: 290 }))
    open(<ListenPage />, { at: '/class/c/listen', path: '/class/:classId/listen' })
    await screen.findByRole('heading', { name: 'Teo Marrable' })
    expect(screen.getByTestId('time-left').textContent).toBe('0:10left')
  })

  it('says honestly when the time is over', async () => {
    server(listening({ spent_s: 372 }))
    await onThePage()
    expect(screen.getByTestId('time-left').textContent).toBe('0:00over by 1:12')
  })

  it('lets keys alone while somebody writes, and sends a comment with a phrase by keys', async () => {
    await onThePage()
    key('c')
    const box = await screen.findByLabelText(/^Comment/)
    fireEvent.keyDown(box, { key: '1' })
    fireEvent.keyDown(box, { key: 'n' })
    expect(acts).toHaveLength(0)
    fireEvent.keyDown(box, { key: '1', altKey: true })
    expect(box).toHaveProperty('value', 'Third finger flat.')
    fireEvent.click(screen.getByLabelText('keep as a phrase'))
    fireEvent.keyDown(box, { key: 'Enter', ctrlKey: true })
    await waitFor(() => expect(acts[0]?.body).toEqual({ kind: 'comment', words: 'Third finger flat.', phrase: true }))
    await waitFor(() => expect(screen.queryByLabelText(/^Comment/)).toBeNull())
  })

  it('does not act on the browser’s own keys', async () => {
    await onThePage()
    key('a', { ctrlKey: true })
    key('p', { metaKey: true })
    expect(acts).toHaveLength(0)
  })

  it('tells what the server refuses', async () => {
    server(listening(), {
      'PUT /takes/t1/acts/*': () => refuse(422, 'A take that is not heard yet cannot be accepted.'),
    })
    await onThePage()
    key('a')
    expect((await screen.findByRole('alert')).textContent).toContain('not heard yet')
    expect(screen.getByRole('button', { name: 'Undo' })).toHaveProperty('disabled', true)
  })

  it('chooses anew for other minutes, and by other weights', async () => {
    let weights: unknown
    server(listening(), {
      'PUT /classes/c/weights': ({ body }) => {
        weights = body
      },
    })
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: '10' }))
    await screen.findByRole('heading', { name: 'Edda Crossmoor' })
    expect(screen.getByRole('button', { name: '10' }).getAttribute('aria-pressed')).toBe('true')
    fireEvent.change(screen.getByLabelText('not yet'), { target: { value: '55' } })
    fireEvent.click(screen.getByRole('button', { name: 'Choose by these', hidden: true }))
    await waitFor(() => expect(weights).toEqual({ weights: { pain: 100, 'not-yet': 55 } }))
    await waitFor(() => expect(log.filter((l) => l.startsWith('GET /classes/c'))).toHaveLength(3))
  })

  it('plays the part that matters as soon as the sound is there, but not under a voice note', async () => {
    const played = vi.spyOn(window.HTMLMediaElement.prototype, 'play')
    const sound = async () => {
      const { container } = await onThePage()
      return container.querySelector('audio') as HTMLAudioElement
    }
    const first = await sound()
    fireEvent(first, new Event('loadedmetadata'))
    expect(played).toHaveBeenCalledTimes(1)
    expect(first.currentTime).toBe(excerpt('t1', '').from_s)
    cleanup()
    const second = await sound()
    key('v')
    await screen.findByRole('region', { name: 'Voice note' })
    fireEvent(second, new Event('loadedmetadata'))
    expect(played).toHaveBeenCalledTimes(1)
  })

  it('has a sheet of its keys', async () => {
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'Keys' }))
    const sheet = await screen.findByRole('dialog')
    expect(within(sheet).getByText('ask for another take')).toBeTruthy()
    fireEvent.keyDown(within(sheet).getByText('next'), { key: '1' })
    expect(acts).toHaveLength(0)
  })

  it('says so when nobody needs an ear', async () => {
    server(listening({ excerpts: [] }))
    open(<ListenPage />, { at: '/class/c/listen', path: '/class/:classId/listen' })
    await screen.findByText(/Nobody needs an ear just now/)
  })
})
