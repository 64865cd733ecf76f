import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { log, refuse, serve } from '../../testing/server'
import { theClass } from '../../testing/things'
import { PlayerPage } from './PlayerPage'

const week = (monday: string, hold: number, centre: number, takes: number, notes = 4): Schemas['GrowthWeek'] => ({
  monday,
  from_day: 0,
  takes: Array.from({ length: takes }, (_, n) => `${monday}-${n}`),
  days: 2,
  best_hold_s: hold,
  centre_cents: centre,
  steadiness_cents: 6,
  notes,
})

const ladder = (more: Partial<Schemas['LadderGrowth']>): Schemas['LadderGrowth'] =>
  ({
    key: 'clarinet-break',
    name: 'Over the clarinet’s break',
    rungs: ['C4 to G3 and back', 'C4 to G3, and stay', 'G3 alone'],
    rung: 2,
    passed: [true, false, false],
    reached: false,
    history: [],
    ...more,
  }) as Schemas['LadderGrowth']

const growth = (more: Partial<Schemas['GrowthView']> = {}): Schemas['GrowthView'] => ({
  class: theClass,
  player: { id: 'pim', name: 'Pim Sandover', stuck: false },
  instrument: 'B♭ clarinet',
  section: 'Clarinets',
  today: '2026-11-26',
  weeks: [week('2026-11-02', 0, 9, 3), week('2026-11-09', 8, 7, 14), week('2026-11-23', 12, 5, 1)],
  hold: { says: '2 days so far: too few to say.' },
  centre: { says: 'Notes are nearer to the middle by 1.3 cents a week, over 9 days.' },
  steadiness: { says: 'No clear change yet, over 9 days.' },
  tone: {
    days: 9,
    says: 'The tone grew clearer, over 9 days on one microphone.',
    turns: [
      {
        quality: 'clearness',
        label: 'Clear or breathy',
        word: 'clearer',
        trend: { per_week: 0.8, low: 0.2, high: 1.4, clear: true, points: 9 },
      },
      { quality: 'fullness', label: 'Full or thin', word: 'no clear change' },
    ],
  },
  days: ['2026-11-03', '2026-11-10', '2026-11-24'],
  notes: [
    { sounding_midi: 58, called: 'low C', takes: 9, good: 8, comes: true },
    { sounding_midi: 65, called: 'G', takes: 4, good: 0, comes: false },
  ],
  ladders: [],
  comments: [
    {
      id: 'c',
      kind: 'comment',
      by: 'Odile Farrow',
      body: 'Third finger flat.',
      take_id: 't3',
      written_at: '2026-11-25T16:00:00Z',
    },
  ],
  ...more,
})

const place = { at: '/class/c/player/pim', path: '/class/:classId/player/:playerId' }
const onThePage = async (view = growth(), more: Parameters<typeof serve>[0] = {}) => {
  serve({ 'GET /classes/c/players/pim/growth': () => view, ...more })
  const page = open(<PlayerPage />, place)
  await screen.findByRole('heading', { name: 'Pim Sandover' })
  return page
}
const line = (name: RegExp) => screen.getByRole('heading', { name }).parentElement as HTMLElement

describe('a player’s growth', () => {
  it('is said in words first, and as honestly as it is known', async () => {
    await onThePage()
    expect(screen.getByText('No clear change yet, over 9 days.')).toBeTruthy()
    expect(screen.getByText(/nearer to the middle by 1.3 cents a week/)).toBeTruthy()
    expect(document.body.textContent).toContain('practiced 3 days in these weeks')
  })

  it('says how the tone went, in words, against the player’s own', async () => {
    await onThePage()
    expect(screen.getByText('The tone grew clearer, over 9 days on one microphone.')).toBeTruthy()
    expect(screen.getByText('no clear change')).toBeTruthy()
  })

  it('leaves a week out where the value was not measured', async () => {
    await onThePage()
    expect(
      within(line(/Longest hold/))
        .getByRole('img')
        .getAttribute('aria-label'),
    ).toBe('Longest hold by week: 2026-11-09, 8.0 s; 2026-11-23, 12.0 s')
    expect(
      within(line(/average distance/))
        .getByRole('img')
        .querySelectorAll('circle'),
    ).toHaveLength(3)
  })

  it('keeps time’s own scale: a week without playing is a gap', async () => {
    await onThePage()
    const at = [
      ...within(line(/average distance/))
        .getByRole('img')
        .querySelectorAll('circle'),
    ].map((c) => Number(c.getAttribute('cx')))
    expect((at[1] as number) - (at[0] as number)).toBeCloseTo(((at[2] as number) - (at[1] as number)) / 2)
  })

  it('has the takes behind every dot, a dozen at most', async () => {
    await onThePage()
    const hold = line(/Longest hold/)
    const [first] = within(hold).getAllByRole('button')
    fireEvent.click(first as HTMLElement)
    const takes = within(hold).getByRole('list', { name: 'The takes of the week' })
    expect(within(takes).getAllByRole('link')).toHaveLength(12)
    expect(takes.textContent).toContain('and 2 more')
    expect(within(takes).getAllByRole('link')[0]?.getAttribute('href')).toBe('/take/2026-11-09-0')
    fireEvent.click(first as HTMLElement)
    expect(within(hold).queryByRole('list')).toBeNull()
  })

  it('marks each day played, week by week', async () => {
    await onThePage()
    const days = screen.getByRole('list', { name: '3 days' })
    expect(within(days).getAllByRole('listitem')).toHaveLength(4)
    expect(within(days).getByText('2026-11-10')).toBeTruthy()
  })

  it('tells the way up a ladder, and back', async () => {
    const history = [
      { day: '2026-11-03', move: 'up', from: 1, rung: 2 },
      { day: '2026-11-10', move: 'back', from: 2, rung: 1 },
      { day: '2026-11-24', move: 'up', from: 1, rung: 2 },
    ] as Schemas['Turn'][]
    await onThePage(growth({ ladders: [ladder({ history })] }))
    expect(screen.getByText('On rung 2 of 3: C4 to G3, and stay')).toBeTruthy()
    expect(screen.getByText('2 rungs passed, led back once')).toBeTruthy()
    expect(screen.getByRole('img', { name: /up to rung 2; .*back to rung 1; .*up to rung 2$/ })).toBeTruthy()
  })

  it('says where nothing was passed, and where a goal was reached', async () => {
    await onThePage(
      growth({
        ladders: [
          ladder({}),
          ladder({
            key: 'x',
            name: 'Home',
            reached: true,
            rung: 3,
            history: [{ day: '2026-11-24', move: 'goal', from: 3, rung: 3 }],
          }),
        ],
      }),
    )
    expect(screen.getByText('no rung passed yet')).toBeTruthy()
    expect(screen.getByText(/The goal is reached. On rung 3 of 3/)).toBeTruthy()
    expect(screen.getByRole('img', { name: /Home: .*reached the goal on rung 3/ })).toBeTruthy()
  })

  it('leads to what was said, to the section and to the page for home', async () => {
    await onThePage()
    expect(screen.getByRole('link', { name: 'Third finger flat.' }).getAttribute('href')).toBe('/take/t3')
    expect(screen.getByRole('link', { name: 'Clarinets' }).getAttribute('href')).toBe('/class/c/section/Clarinets')
    expect(screen.getByRole('link', { name: 'A page for home (PDF)' }).getAttribute('href')).toBe(
      '/api/classes/c/players/pim/report.pdf',
    )
  })

  it('holds for somebody who has not played', async () => {
    await onThePage(growth({ weeks: [], days: [], comments: [] }))
    expect(screen.getByText('None was tried yet.')).toBeTruthy()
    expect(screen.queryByRole('heading', { name: 'Days practiced' })).toBeNull()
  })
})

describe('deleting a player for good', () => {
  it('wants the name written, and leaves for the class’s page', async () => {
    const gone = { takes: 9, recordings: 7, comments: 2, voice_notes: 1, parts: 0, jobs: 0, backup_days: 14 }
    const { where } = await onThePage(growth(), { 'DELETE /classes/c/players/pim': () => gone })
    const press = () => screen.getByRole('button', { name: 'Delete for good', hidden: true })
    expect(press()).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByLabelText('Write Pim Sandover'), { target: { value: 'Pim' } })
    expect(press()).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByLabelText('Write Pim Sandover'), { target: { value: 'Pim Sandover ' } })
    fireEvent.click(press())
    expect((await screen.findByRole('status')).textContent).toContain('Nightly backups still hold them for 14 days')
    expect(screen.getByText(/9 takes with all that was measured, 7 recordings/)).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Back to the class' }))
    await waitFor(() => expect(where()).toBe('/class/c/set-up'))
    expect(log).toContain('DELETE /classes/c/players/pim')
  })

  it('says why it could not be done', async () => {
    await onThePage(growth(), {
      'DELETE /classes/c/players/pim': () => refuse(500, 'A recording could not be deleted. Try again.'),
    })
    fireEvent.change(screen.getByLabelText('Write Pim Sandover'), { target: { value: 'Pim Sandover' } })
    fireEvent.click(screen.getByRole('button', { name: 'Delete for good', hidden: true }))
    expect((await screen.findByRole('alert')).textContent).toContain('Try again')
  })
})
