import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { log, refuse, serve } from '../../testing/server'
import { theClass } from '../../testing/things'
import { PlanPage } from './PlanPage'
import type { Item, Kind, Plan } from './queries'

vi.mock('../../notation/Bars', () => ({ default: ({ says }: { says: string }) => <p>{says}</p> })) // drawn in the browser's own tests

const kind = (key: string, name: string, group: string, parameters: unknown[] = []) =>
  ({ key, name, group, why: `why ${name}`, parameters, ticked: false, metered: false }) as unknown as Kind

const beats = { key: 'beats', label: 'Beats', type: 'number', min: 2, max: 16, step: 1, default: 8, unit: 'beats' }
const kinds = [
  kind('long-tone-counted', 'Long tone, counted', 'Long tones', [beats]),
  kind('swell', 'Swell', 'Long tones'),
  kind('care', 'Care', 'Around playing'),
]

const item = (key: string, more: Partial<Item> = {}): Item => ({
  key,
  kind: 'long-tone-counted',
  parameters: { beats: 8 },
  times: 1,
  days: ['MO', 'TU'],
  at: 'both',
  wanted: 2,
  pinned: false,
  for: [],
  why: '',
  ...more,
})

const plan = (...items: Item[]) =>
  ({
    class: theClass,
    monday: '2026-11-23',
    today: '2026-11-23',
    name: 'This week',
    revision: 1,
    items,
    opens: [{ kind: 'long-tone-counted', parameters: { beats: 6 } }],
    long_tone: 'long-tone-counted',
    class_minutes: 8,
    home_minutes: 0,
    history: [
      { revision: 1, by: 'Odile Farrow', at: '2026-11-22T08:00:00Z', changes: 'added a long tone' },
      { revision: 0, by: 'Tobin Saltbridge', at: '2026-11-21T08:00:00Z', changes: 'began the week' },
    ],
    band: [
      {
        instrument: 'clarinet',
        variant: '',
        name: 'B♭ clarinet',
        section: 'Clarinets',
        stage: 2,
        players: 7,
        fingered: true,
      },
      { instrument: 'tuba', variant: '', name: 'Tuba', section: 'Tubas', stage: 2, players: 1, fingered: true },
    ],
  }) as unknown as Plan

const work = (items: Item[]): Schemas['DayWork'] =>
  ({
    items: items.map((i) => ({ key: i.key, seconds: 60, sentence: `${i.kind}: as planned`, left_out: [] })),
    total_s: 60 * items.length,
    budget_s: 90,
    over: items.length > 1 ? ['the tubas play high for too long'] : [],
    order: [...items].reverse().map((i) => i.key),
    reason: 'Air comes before sound.',
    sections: [{ section: 'Tubas', stage: 2, load: { sound_s: 30, rest_s: 20, lip_s: 30, breath_s: 8, high_s: 0 } }],
  }) as unknown as Schemas['DayWork']

const notation = (instrument: string) => ({
  suits: instrument !== 'tuba',
  sentence: 'Long tone',
  bars: [],
  score: {
    segments: [
      {
        phase: 'play',
        sounds: true,
        start_beat: 4,
        beats: 8,
        written_name: 'C4',
        fingering: { text: 'T 123', diagram: { width: 20, height: 60, marks: [] } },
      },
    ],
    items: [],
    notices: ['An octave lower for the low ones.'],
    cautions: ['Rest as long as you played.'],
  },
})

let saved: { items: Item[] }[]
function school(of: Plan, more: Parameters<typeof serve>[0] = {}) {
  saved = []
  serve({
    'GET /classes/c/plans/2026-11-23': () => of,
    'GET /catalogue': () => ({ kinds, choices: [{ degree: 0, concert: 'B♭', first_five: true }] }),
    'GET /exercises': () => ({ exercises: [] }),
    'POST /classes/c/models': () => ({ models: [] }),
    'GET /templates': () => ({
      templates: [{ id: 'tpl', name: 'A quiet week', items: [item('old', { kind: 'swell' })] }],
    }),
    'POST /classes/c/days/work': ({ body }) => work((body as { items: Item[] }).items),
    'POST /classes/c/steps/notation': ({ body }) => notation((body as { instrument: string }).instrument),
    'PUT /classes/c/plans/2026-11-23': ({ body }) => {
      saved.push(body as { items: Item[] })
      return { ...of, ...(body as object), revision: of.revision + saved.length }
    },
    ...more,
  })
}

const onThePage = async () => {
  const page = open(<PlanPage />, { at: '/class/c/plan/2026-11-23', path: '/class/:classId/plan/:monday' })
  await screen.findByText(/Everything is saved/)
  return page
}
const rows = () => [...document.querySelectorAll('[data-step]')].map((r) => r.getAttribute('data-step'))
const lastSaved = async (n: number) => {
  await waitFor(() => expect(saved).toHaveLength(n))
  return saved.at(-1)?.items ?? []
}

beforeEach(() => school(plan(item('a'), item('b', { kind: 'swell', pinned: true, wanted: 3 }))))

describe('a week’s plan', () => {
  it('shows the day’s steps with their time against what there is', async () => {
    await onThePage()
    expect(rows()).toEqual(['Long tone, counted', 'Swell'])
    expect((await screen.findByTestId('day-total')).textContent).toBe('2:00')
    expect(screen.getByText(/more than there is/)).toBeTruthy()
    expect(screen.getByText('the tubas play high for too long.')).toBeTruthy()
    expect(screen.getByText('pinned')).toBeTruthy()
    expect(screen.getByText('must', { selector: 'span' })).toBeTruthy()
    const load = screen.getByRole('row', { name: /Tubas/, hidden: true })
    expect(load.textContent).toContain('0:30')
  })

  it('takes a kind from the catalogue, on this day and with its usual parameters', async () => {
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: /^Add Care/ }))
    expect(rows()).toEqual(['Long tone, counted', 'Swell', 'Care'])
    const [, , added] = await lastSaved(1)
    expect(added).toMatchObject({ kind: 'care', days: ['MO'], at: 'both', parameters: {} })
    fireEvent.click(screen.getByRole('button', { name: /^Add Long tone, counted/ }))
    expect((await lastSaved(2)).at(-1)?.parameters).toEqual({ beats: 6 })
  })

  it('keeps a step under a name of the director’s own, and brings it back from the catalogue', async () => {
    const own = { id: 'o1', name: 'Monday glow', kind: 'long-tone-counted', parameters: { beats: 5 }, sentence: 'Five' }
    school(plan(item('a')), {
      'GET /exercises': () => ({ exercises: [] }),
      'POST /exercises': ({ body }) => ({ exercises: [{ ...own, ...(body as object) }] }),
    })
    await onThePage()
    fireEvent.change(screen.getByLabelText('Your name for it'), { target: { value: ' Monday glow ' } })
    fireEvent.click(screen.getByRole('button', { name: 'Keep under this name', hidden: true }))
    fireEvent.click(await screen.findByRole('button', { name: /^Add Monday glow/ }))
    await waitFor(() => expect(saved.at(-1)?.items).toHaveLength(2))
    for (const step of saved.at(-1)?.items ?? []) expect(step.called).toBe('Monday glow')
    expect(saved.at(-1)?.items[1]?.parameters).toEqual({ beats: 8 })
  })

  it('takes a step off, and brings it back with the usual keys', async () => {
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'Take Swell off' }))
    expect(rows()).toEqual(['Long tone, counted'])
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true })
    expect(rows()).toEqual(['Long tone, counted', 'Swell'])
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true, shiftKey: true })
    expect(rows()).toEqual(['Long tone, counted'])
    fireEvent.keyDown(document.body, { key: 'z', metaKey: true })
    fireEvent.keyDown(document.body, { key: 'y', ctrlKey: true })
    expect(rows()).toEqual(['Long tone, counted'])
  })

  it('leaves undo to the browser while somebody types', async () => {
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'Take Swell off' }))
    fireEvent.keyDown(screen.getByLabelText('Beats'), { key: 'z', ctrlKey: true })
    expect(rows()).toEqual(['Long tone, counted'])
  })

  it('puts the day into the class’s order, and says why', async () => {
    await onThePage()
    fireEvent.click(await screen.findByRole('button', { name: 'Sort by the class’s order' }))
    expect(rows()).toEqual(['Swell', 'Long tone, counted'])
    expect((await lastSaved(1)).map((i) => i.key)).toEqual(['b', 'a'])
  })

  it('shows another day, and where it is played', async () => {
    school(plan(item('a', { at: 'home' }), item('b', { kind: 'swell', days: ['FR'] })))
    await onThePage()
    expect(rows()).toEqual([])
    fireEvent.click(screen.getByLabelText('At home'))
    expect(rows()).toEqual(['Long tone, counted'])
    fireEvent.click(screen.getByRole('radio', { name: 'Friday, 1 step' }))
    expect(rows()).toEqual(['Swell'])
    fireEvent.click(screen.getByRole('radio', { name: /Wednesday/ }))
    expect(screen.getByText(/Nothing on this day yet/)).toBeTruthy()
  })

  it('goes to other weeks', async () => {
    const { where } = await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'The week after' }))
    await waitFor(() => expect(where()).toBe('/class/c/plan/2026-11-30'))
  })

  it('tells who changed what', async () => {
    await onThePage()
    expect(document.body.textContent).toContain('Last: Odile Farrow')
    expect(screen.getByText(/Tobin Saltbridge began the week/)).toBeTruthy()
  })
})

describe('the step in hand', () => {
  it('is changed parameter by parameter', async () => {
    await onThePage()
    fireEvent.change(screen.getByLabelText('Beats'), { target: { value: '12' } })
    expect((await lastSaved(1))[0]?.parameters).toEqual({ beats: 12 })
  })

  it('is the one just added from the moment it is listed, not the last one', async () => {
    await onThePage()
    const acts = globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }
    // As in a browser: what is drawn at once is drawn alone, before what React puts off.
    acts.IS_REACT_ACT_ENVIRONMENT = false
    const drawn: string[] = []
    const watch = new MutationObserver(() =>
      drawn.push(`${rows().length}: ${document.querySelector('section[aria-label^="The step"] h2')?.textContent}`),
    )
    watch.observe(document.body, { childList: true, subtree: true })
    try {
      screen.getByRole('button', { name: /^Add Care/ }).click()
      await vi.waitFor(() => expect(drawn.at(-1)).toBe('3: Care'))
    } finally {
      watch.disconnect()
      acts.IS_REACT_ACT_ENVIRONMENT = true
    }
    expect(drawn).not.toContain('3: Long tone, counted')
  })

  it('says at its field what cannot be', async () => {
    school(plan(item('a')), {
      'POST /classes/c/steps/notation': () =>
        refuse(422, 'The step cannot be written so.', { beats: 'hold 2 to 16 beats' }),
    })
    await onThePage()
    const field = screen.getByLabelText('Beats')
    await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'))
    expect(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent).toBe(
      'hold 2 to 16 beats',
    )
  })

  it('is read as any instrument of the band reads it', async () => {
    await onThePage()
    await screen.findByText('Long tone, as read by B♭ clarinet: C4')
    expect(screen.getByText('Rest as long as you played.')).toBeTruthy()
    fireEvent.change(screen.getByLabelText('As read by'), { target: { value: '1' } })
    await screen.findByText('This step is not for Tuba.')
  })
})

/** copyFrom opens the list of weeks by the keyboard and takes one. */
async function copyFrom(name: string) {
  fireEvent.keyDown(screen.getByRole('button', { name: 'Copy from … ▾' }), { key: 'Enter' })
  fireEvent.click(await screen.findByRole('menuitem', { name }))
}

describe('with a press', () => {
  it('a day is fitted into its minutes, with what was cut and why, and left as it was if wanted', async () => {
    let asked: unknown
    school(plan(item('a', { times: 3 }), item('b', { kind: 'swell' })), {
      'POST /classes/c/days/fit': ({ body }) => {
        asked = body
        return {
          items: [item('a', { times: 1 })],
          total_s: 240,
          beyond: [],
          cuts: [
            { key: 'a', says: 'once instead of three times', why: 'repeats go first', dropped: false },
            { key: 'b', says: 'left out', why: 'it is wanted least', dropped: true },
          ],
        }
      },
    })
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'Fit to minutes' }))
    const sheet = await screen.findByRole('dialog')
    await within(sheet).findByTestId('fitted')
    expect(asked, 'at once, into the minutes that are known').toMatchObject({ minutes: 8 })
    fireEvent.change(within(sheet).getByLabelText('Minutes'), { target: { value: '4' } })
    fireEvent.click(within(sheet).getByRole('button', { name: 'Fit into these' }))
    await waitFor(() => expect(asked).toMatchObject({ minutes: 4 }))
    expect((await within(sheet).findByTestId('fitted')).textContent).toContain('1 step in 4:00')
    expect(asked).toMatchObject({ at: 'class', minutes: 4 })
    expect(within(sheet).getByText('it is wanted least')).toBeTruthy()
    fireEvent.click(within(sheet).getByRole('button', { name: 'Take this day' }))
    const after = await lastSaved(1)
    expect(after.map((i) => [i.key, i.times])).toEqual([['a', 1]])
  })

  it('steps are suggested from what was heard, and taken line by line', async () => {
    const suggestions = [
      { item: item('s', { kind: 'swell' }), name: 'Swell', section: 'Clarinets', reason: '4 of 7 waver' },
    ]
    school(plan(item('a')), { 'GET /classes/c/plans/2026-11-23/suggestions': () => ({ heard: 61, suggestions }) })
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: 'Suggest from last week' }))
    await screen.findByText('61 takes were heard.')
    fireEvent.click(screen.getByRole('button', { name: 'Take it' }))
    expect(screen.getByRole('button', { name: 'Taken' })).toHaveProperty('disabled', true)
    expect((await lastSaved(1)).map((i) => i.key)).toEqual(['a', 's'])
  })

  it('a week begins from another, with numbers of its own', async () => {
    school(plan(item('a')), { 'GET /classes/c/plans/2026-11-16': () => plan(item('last')) })
    await onThePage()
    await copyFrom('The week before')
    const copied = await lastSaved(1)
    expect(copied).toHaveLength(2)
    expect(copied[1]?.key).not.toBe('last')
    await copyFrom('A quiet week')
    expect((await lastSaved(2)).at(-1)?.kind).toBe('swell')
  })

  it('says when a week cannot be copied', async () => {
    school(plan(item('a')), { 'GET /classes/c/plans/2026-11-16': () => refuse(503, 'Not now.') })
    await onThePage()
    await copyFrom('The week before')
    expect((await screen.findByRole('alert')).textContent).toBe('Not now.')
    expect(log).toContain('GET /classes/c/plans/2026-11-16')
  })
})
