import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { refuse, serve } from '../../testing/server'
import { theClass } from '../../testing/things'
import { SectionPage } from './SectionPage'

const spread = (middle: number, of = 5) => ({ low: middle - 4, middle, high: middle + 6, of })
const note = (written: string, more: Partial<Schemas['MapNote']>): Schemas['MapNote'] => ({
  written,
  concert: 'B♭3',
  sounding_midi: written.charCodeAt(0),
  takes: 10,
  good: 9,
  players: 5,
  centre_cents: spread(2),
  steadiness_cents: spread(7),
  wall: false,
  hard: false,
  ...more,
})

const section: Schemas['SectionView'] = {
  class: theClass,
  section: 'Clarinets',
  sections: ['Flutes', 'Clarinets'],
  days: 14,
  from: '2026-11-13',
  to: '2026-11-26',
  maps: [
    {
      instrument: 'B♭ clarinet',
      notes: [
        note('C4', {}),
        note('G4', { takes: 4, good: 1, centre_cents: spread(0, 0), steadiness_cents: spread(0, 0) }),
        note('B4', { good: 4, wall: true, hard: true, centre_cents: spread(-31) }),
      ],
    },
  ],
  ladders: [
    {
      name: 'Over the clarinet’s break',
      rungs: ['C4 to G3 and back', 'C4 to G3, and stay', 'G3 alone'],
      on: [
        { rung: 3, text: 'G3 alone', players: [{ id: 'pim', name: 'Pim Sandover', stuck: false }] },
        { rung: 1, text: 'C4 to G3 and back', players: [{ id: 'teo', name: 'Teo Marrable', stuck: true }] },
      ],
    },
  ],
  players: [{ id: 'pim', name: 'Pim Sandover', stuck: false }],
}

const place = { at: '/class/c/section/Clarinets', path: '/class/:classId/section/:section' }
const row = (written: string) => document.querySelector<HTMLElement>(`tr[data-note="${written}"]`) as HTMLElement

const tone = {
  weeks: 4,
  players: [
    {
      id: 'pim',
      name: 'Pim Sandover',
      stuck: false,
      tone: { days: 2, says: 'Tone on one microphone: 2 days so far, too few to say.', turns: [], why_not: 'too-few' },
    },
  ],
}

describe('a section', () => {
  it('says how each player’s tone went, each against their own', async () => {
    serve({ 'GET /classes/c/sections/Clarinets': () => section, 'GET /classes/c/sections/Clarinets/tone': () => tone })
    open(<SectionPage />, place)
    await screen.findByText(/2 days so far, too few to say/)
    expect(screen.getByText(/Never one against another/)).toBeTruthy()
  })

  it('counts each note, and draws a share only from five takes on', async () => {
    serve({ 'GET /classes/c/sections/Clarinets': () => section })
    open(<SectionPage />, place)
    await screen.findByRole('heading', { name: 'B♭ clarinet' })
    expect(within(row('C4')).getByTestId('count').textContent).toBe('9 of 10')
    expect(row('C4').querySelector('rect')).not.toBeNull()
    expect(within(row('G4')).getByTestId('count').textContent).toBe('1 of 4')
    expect(row('G4').querySelector('rect')).toBeNull()
    expect(document.body.textContent).not.toContain('%')
  })

  it('says which note is the next wall, and where notes lie, in words too', async () => {
    serve({ 'GET /classes/c/sections/Clarinets': () => section })
    open(<SectionPage />, place)
    await screen.findByText('The next trouble spot is B4: it comes out in 4 of 10 takes.')
    expect(row('B4').textContent).toContain('hard')
    expect(
      within(row('B4')).getByRole('img', { name: '31 flat; half the players between 35 flat and 25 flat' }),
    ).toBeTruthy()
    expect(within(row('C4')).getByRole('img').getAttribute('aria-label')).toContain('2 sharp')
    expect(within(row('G4')).queryByRole('img')).toBeNull()
  })

  it('shows who stands on which rung, the top first, and who is stuck', async () => {
    serve({ 'GET /classes/c/sections/Clarinets': () => section })
    open(<SectionPage />, place)
    const rungs = (await screen.findByRole('heading', { name: 'Over the clarinet’s break' }))
      .parentElement as HTMLElement
    const names = within(rungs).getAllByRole('link')
    expect(names.map((n) => n.getAttribute('href'))).toEqual(['/class/c/player/pim', '/class/c/player/teo'])
    expect(rungs.textContent).toMatch(/Teo Marrable.*stuck/)
  })

  it('looks back as long as the address says', async () => {
    const asked: (string | null)[] = []
    serve({
      'GET /classes/c/sections/Clarinets': ({ query }) => {
        asked.push(query.get('days'))
        return section
      },
    })
    const { where } = open(<SectionPage />, place)
    fireEvent.change(await screen.findByLabelText(/the last/), { target: { value: '370' } })
    await waitFor(() => expect(asked).toEqual(['14', '370']))
    expect(where()).toBe('/class/c/section/Clarinets?days=370')
    expect(screen.getByRole('link', { name: 'Flutes' }).getAttribute('href')).toContain('days=370')
  })

  it('says so where there is nothing', async () => {
    serve({
      'GET /classes/c/sections/Clarinets': () => ({
        ...section,
        maps: [{ instrument: 'B♭ clarinet', notes: [] }],
        ladders: [],
      }),
    })
    open(<SectionPage />, place)
    await screen.findByText('B♭ clarinet: nothing was played in these days.')
  })

  it('says what is wrong', async () => {
    serve({ 'GET /classes/c/sections/Clarinets': () => refuse(404, 'There is no such section.') })
    open(<SectionPage />, place)
    expect((await screen.findByRole('alert')).textContent).toBe('There is no such section.')
  })
})
