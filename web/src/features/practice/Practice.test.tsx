import 'fake-indexeddb/auto'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { database } from '../../device/database'
import { keep } from '../../device/kept'
import { Outbox } from '../../device/outbox'
import { OutboxContext } from '../../device/useOutbox'
import { forgetEveryone, keepKey } from '../../device/vault'
import { open } from '../../testing/page'
import { log, refuse, serve, unreachable } from '../../testing/server'
import { Practice } from './Practice'
import { localDay } from './queries'
import { TellDirector } from './TellDirector'

vi.mock('../../ear/listener', () => ({ warm: () => {} })) // the core is tested where it is

const today = localDay(new Date())

/** care is a step that is ticked, with two things to do. */
const care = (id: string, name: string, more: object = {}) =>
  ({
    id,
    version: 1,
    name,
    why: 'Dry before it goes in its case.',
    sentence: name,
    times: 1,
    recent_tips: [],
    takes: [],
    ticked: [false, false],
    score: {
      ticked: true,
      items: ['Wipe it dry', 'Close the case'],
      pictures: [],
      cautions: ['Reeds are shared with nobody.'],
      kind: 'care',
    },
    ...more,
  }) as unknown as Schemas['PracticeStep']

const practice = (...steps: Schemas['PracticeStep'][]): Schemas['Practice'] =>
  ({
    player: 'Ada T.',
    player_id: 'ada',
    instrument: 'B♭ clarinet',
    fingered: true,
    day: today,
    steps,
    comments: [
      {
        id: 'c1',
        kind: 'comment',
        by: 'Odile Farrow',
        body: 'Bigger breath, same lips.',
        take_id: 't',
        written_at: '2026-11-25T16:00:00Z',
      },
    ],
    tips: {},
    stand_ins: [],
    blowers: [],
    setting: {},
  }) as unknown as Schemas['Practice']

type Sent = { path: string; body: unknown }
let told: Sent[]

function school(of: Schemas['Practice'], more: Parameters<typeof serve>[0] = {}) {
  told = []
  serve({
    'GET /me': () => ({ role: 'player', name: 'Ada T.', class: 'Ferry Bell Winds', id: 'ada' }),
    'GET /practice': () => of,
    'GET /practice/week': () => ({ days: [] }),
    'PUT /practice/**': ({ path, body }) => void told.push({ path, body }),
    ...more,
  })
}

beforeEach(async () => {
  await keepKey('ada', new Uint8Array(32).fill(3))
  school(practice(care('s1', 'Care'), care('s2', 'Set up')))
})
afterEach(async () => {
  const db = await database()
  await db.clear('entries')
  await forgetEveryone()
})

const item = (name: string) => screen.getByRole('checkbox', { name })

describe('a player’s page', () => {
  it('shows what to do, why, what to take care of, and what the director said', async () => {
    open(<Practice />)
    await screen.findByRole('heading', { name: 'Care' })
    expect(screen.getByText('Dry before it goes in its case.')).toBeTruthy()
    expect(
      within(screen.getByRole('list', { name: 'Take care' })).getByText('Reeds are shared with nobody.'),
    ).toBeTruthy()
    expect(screen.getByText('Bigger breath, same lips.')).toBeTruthy()
    expect(screen.getByText('0 of 2 clean today')).toBeTruthy()
    await screen.findByText('All you did is safe with your director.')
  })

  it('begins at the first step that is not clean, and goes where one points', async () => {
    school(practice(care('s1', 'Care', { result: 'clean', ticked: [true, true] }), care('s2', 'Set up')))
    const { where } = open(<Practice />)
    await screen.findByRole('heading', { name: 'Set up' })
    fireEvent.click(screen.getByRole('button', { name: /^1 ?Care, clean/ }))
    await screen.findByRole('heading', { name: 'Care' })
    expect(where()).toBe('/?step=s1')
    fireEvent.click(screen.getByRole('button', { name: 'Next step' }))
    await screen.findByRole('heading', { name: 'Set up' })
    fireEvent.click(screen.getByRole('button', { name: 'Done' }))
    await screen.findByRole('heading', { name: 'Done for today.' })
  })

  it('keeps a tick at once and sends it once', async () => {
    open(<Practice />)
    await screen.findByRole('heading', { name: 'Care' })
    fireEvent.click(item('Wipe it dry'))
    await waitFor(() => expect(item('Wipe it dry')).toHaveProperty('checked', true))
    await waitFor(() =>
      expect(told).toEqual([
        { path: '/practice/steps/s1/ticks', body: expect.objectContaining({ version: 1, done: [true, false] }) },
      ]),
    )
  })

  it('loses no tick to the next one, however quickly they come', async () => {
    open(<Practice />)
    await screen.findByRole('heading', { name: 'Care' })
    fireEvent.click(item('Wipe it dry'))
    fireEvent.click(item('Close the case'))
    await waitFor(() => expect(told.at(-1)?.body).toMatchObject({ done: [true, true] }))
    expect(item('Wipe it dry')).toHaveProperty('checked', true)
    expect(item('Close the case')).toHaveProperty('checked', true)
  })

  it('says where nothing is set', async () => {
    school(practice())
    open(<Practice />)
    await screen.findByText('Nothing is set for today. Play something you like.')
  })

  it('says what is wrong when the server says no', async () => {
    school(practice(), { 'GET /practice': () => refuse(500, 'The plan cannot be read.') })
    open(<Practice />)
    expect((await screen.findByRole('alert')).textContent).toContain('The plan cannot be read.')
  })
})

describe('without a network', () => {
  const cut = {
    'GET /practice': unreachable,
    'GET /me': unreachable,
    'PUT /practice/**': unreachable,
    'GET /practice/week': unreachable,
  }

  it('shows today as it was kept, and what is ticked goes up once there is one', async () => {
    await keep('me', { role: 'player', name: 'Ada T.', class: '', id: 'ada' })
    await keep('practice', practice(care('s1', 'Care')))
    school(practice(), cut)
    open(<Practice />)
    await screen.findByRole('heading', { name: 'Care' })
    fireEvent.click(item('Wipe it dry'))
    await waitFor(() => expect(item('Wipe it dry')).toHaveProperty('checked', true))
    await screen.findByText(/One thing you told is on this device\..*goes up by itself as soon as there is a network/)
    school(practice(care('s1', 'Care')))
    act(() => void window.dispatchEvent(new Event('online')))
    await waitFor(() => expect(told).toHaveLength(1))
    await screen.findByText('All you did is safe with your director.')
  })

  it('opens the week ahead where the kept day is over', async () => {
    await keep('me', { role: 'player', name: 'Ada T.', class: '', id: 'ada' })
    await keep('practice', { ...practice(care('old', 'Yesterday’s')), day: '2020-01-01' })
    await keep('week', { days: [{ day: today, steps: [care('new', 'Today’s')] }] })
    school(practice(), cut)
    open(<Practice />)
    await screen.findByRole('heading', { name: 'Today’s' })
  })

  it('says so where nothing is kept yet', async () => {
    await keep('me', { role: 'player', name: 'Ada T.', class: '', id: 'ada' })
    school(practice(), cut)
    open(<Practice />)
    expect((await screen.findByRole('alert')).textContent).toContain('The server cannot be reached')
  })
})

describe('telling the director', () => {
  const shown = async () => {
    const outbox = new Outbox('ada')
    await outbox.open()
    open(
      <OutboxContext value={outbox}>
        <TellDirector stepId="s1" />
      </OutboxContext>,
    )
    return outbox
  }

  it.each([
    ['My lips, jaw or hands hurt', 'hurts', /see a doctor before you play/],
    ['I feel dizzy or tingly', 'dizzy', /tell an adult at once/],
    ['I am just tired', 'tired', /Stopping in time is part of practising/],
  ])('“%s” says what to do now, and reaches the director', async (words, kind, advice) => {
    const outbox = await shown()
    fireEvent.click(screen.getByRole('button', { name: 'It hurts, or I feel dizzy' }))
    fireEvent.click(await screen.findByRole('button', { name: words }))
    expect((await screen.findByText(advice)).textContent).toContain('Your director is told.')
    await waitFor(() =>
      expect(told).toEqual([
        { path: expect.stringContaining('/practice/flags/'), body: expect.objectContaining({ kind, step: 's1' }) },
      ]),
    )
    outbox.close()
  })

  it('a question is kept where there is no network, and said to be on its way', async () => {
    school(practice(), { 'PUT /practice/**': unreachable })
    const outbox = await shown()
    fireEvent.click(screen.getByRole('button', { name: 'Ask your director' }))
    fireEvent.change(await screen.findByLabelText('Your question'), { target: { value: 'Which thumb?' } })
    fireEvent.click(screen.getByRole('button', { name: 'Send' }))
    await screen.findByText(/Kept, and on its way/)
    await waitFor(() => expect(outbox.now().items.map((i) => i.state)).toEqual(['waiting']))
    await waitFor(() => expect(log.some((l) => l.startsWith('PUT /practice/flags/'))).toBe(true))
    outbox.close()
  })
})
