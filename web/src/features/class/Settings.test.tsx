import { fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { open } from '../../testing/page'
import { refuse, serve } from '../../testing/server'
import { theClass } from '../../testing/things'
import { HardNotes } from './HardNotes'
import type { Conventions, SetUp } from './queries'
import { Remedies } from './Remedies'
import { TipBook } from './TipBook'

const setUp = (more: object = {}) =>
  ({
    class: theClass,
    first_lesson: '2026-10-05',
    class_minutes: 8,
    home_minutes: 0,
    keep_days: 365,
    keep_voice_days: 0,
    keep_measures_days: 0,
    conventions: { a4_hz: 440 },
    own_tips: { 'gap-own': 'Keep the ribbon whole.' },
    tips: [
      { key: 'gap-own', cause: 'gap', text: 'Keep the air moving.', family: 'brass' },
      { key: 'gap-low', cause: 'gap', text: 'More air, low.', register: 'low', direction: -1 },
      { key: 'held', cause: 'held', text: 'Hold on.' },
    ],
    remedies: [
      {
        key: 'gap',
        cause: 'gap',
        family: '',
        words: 'the sound stops',
        kinds: ['breath-pattern', 'long-tone-counted'],
        usual: ['breath-pattern', 'long-tone-counted'],
      },
      { key: 'gap/brass', cause: 'gap', family: 'brass', words: 'the sound stops', kinds: ['buzz'], usual: ['buzz'] },
    ],
    kinds: [
      { key: 'breath-pattern', name: 'Breath pattern' },
      { key: 'long-tone-counted', name: 'Long tone, counted' },
      { key: 'buzz', name: 'Buzz' },
    ],
    players: [{ id: 'ada', instrument: 'clarinet' }],
    instruments: [
      {
        key: 'clarinet',
        name: 'B♭ clarinet',
        notes: [
          { sounding_midi: 55, written: 'A3', usual: false },
          { sounding_midi: 57, written: 'B3', usual: true },
          { sounding_midi: 69, written: 'B4', usual: true },
        ],
      },
      { key: 'tuba', name: 'Tuba', notes: [{ sounding_midi: 34, written: 'B♭1', usual: false }] },
    ],
    ...more,
  }) as unknown as SetUp

describe('what is assigned for which cause', () => {
  it('is put in another order, added to, and given back; only what differs is saved', async () => {
    let saved: { remedies?: Record<string, string[]> } | undefined
    serve({
      'PUT /classes/c/settings': ({ body }) => {
        saved = body as typeof saved
        return setUp()
      },
    })
    open(<Remedies classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Long tone, counted earlier' }))
    fireEvent.change(screen.getByLabelText('Add a step for: the sound stops, brass'), {
      target: { value: 'long-tone-counted' },
    })
    fireEvent.click(screen.getByRole('button', { name: 'Leave Buzz out' }))
    fireEvent.click(screen.getByRole('button', { name: 'Save the next steps' }))
    await screen.findByText('Saved.')
    expect(saved?.remedies).toEqual({
      gap: ['long-tone-counted', 'breath-pattern'],
      'gap/brass': ['long-tone-counted'],
    })
    for (const back of screen.getAllByRole('button', { name: 'Our order' })) fireEvent.click(back)
    fireEvent.click(screen.getByRole('button', { name: 'Save the next steps' }))
    await waitFor(() => expect(saved?.remedies).toEqual({}))
  })

  it('says what is left when nothing is assigned', () => {
    open(<Remedies classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Leave Buzz out' }))
    expect(screen.getByText('hear them in person')).toBeTruthy()
  })
})

describe('the class’s own tips', () => {
  let saved: { tips: Record<string, string>; keep_days?: number } | undefined
  beforeEach(() => {
    saved = undefined
    serve({
      'PUT /classes/c/settings': ({ body }) => {
        saved = body as typeof saved
        return setUp()
      },
    })
  })

  it('stand by cause, each said for whom and which way', () => {
    open(<TipBook classId="c" setUp={setUp()} />)
    expect(screen.getAllByRole('heading').map((h) => h.textContent)).toEqual(['gap', 'held'])
    expect(screen.getByLabelText('brass')).toHaveProperty('value', 'Keep the ribbon whole.')
    expect(screen.getByLabelText('low notes, too low, short or early')).toHaveProperty('value', 'More air, low.')
    expect(screen.getByLabelText('everyone')).toHaveProperty('value', 'Hold on.')
  })

  it('are changed, and given back, in the place of ours', async () => {
    open(<TipBook classId="c" setUp={setUp()} />)
    fireEvent.change(screen.getByLabelText('everyone'), { target: { value: 'Longer, like the tide.' } })
    fireEvent.click(screen.getAllByRole('button', { name: 'Our words' })[0] as HTMLElement)
    expect(screen.getByLabelText('brass')).toHaveProperty('value', 'Keep the air moving.')
    fireEvent.click(screen.getByRole('button', { name: 'Save the tips' }))
    await screen.findByText('Saved.')
    expect(saved?.tips).toEqual({ held: 'Longer, like the tide.' })
    expect(saved?.keep_days).toBeUndefined() // how long recordings are kept is left as it was
  })

  it('lose nothing when they cannot be saved', async () => {
    serve({ 'PUT /classes/c/settings': () => refuse(422, 'A tip is 300 letters at most.') })
    open(<TipBook classId="c" setUp={setUp()} />)
    fireEvent.change(screen.getByLabelText('everyone'), { target: { value: 'Very long' } })
    fireEvent.click(screen.getByRole('button', { name: 'Save the tips' }))
    expect((await screen.findByRole('alert')).textContent).toContain('300 letters')
    expect(screen.getByLabelText('everyone')).toHaveProperty('value', 'Very long')
  })
})

describe('hard notes', () => {
  const shown = (conventions: Partial<Conventions>) => {
    const changes: Conventions['hard'][] = []
    open(<HardNotes setUp={setUp()} conventions={conventions as Conventions} onChange={(hard) => changes.push(hard)} />)
    return changes
  }
  const note = (written: string) => screen.getByRole('checkbox', { name: written, hidden: true })

  it('are the usual ones until a director says otherwise', () => {
    const changes = shown({})
    expect(note('B4')).toHaveProperty('checked', true)
    expect(note('A3')).toHaveProperty('checked', false)
    fireEvent.click(note('A3'))
    expect(changes).toEqual([{ clarinet: [55, 57, 69] }])
    fireEvent.click(note('B4'))
    expect(changes[1]).toEqual({ clarinet: [57] })
  })

  it('go back to the usual ones, for one instrument alone', async () => {
    const changes = shown({ hard: { clarinet: [55], tuba: [34] } })
    expect(note('B4')).toHaveProperty('checked', false)
    fireEvent.click(screen.getByRole('button', { name: 'As usual', hidden: true }))
    expect(changes).toEqual([{ tuba: [34] }])
    fireEvent.change(screen.getByLabelText('Instrument'), { target: { value: 'tuba' } })
    await waitFor(() => expect(note('B♭1')).toHaveProperty('checked', true))
  })
})
