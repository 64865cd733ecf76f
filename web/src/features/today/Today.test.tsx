import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { log, refuse, serve } from '../../testing/server'
import { ribbon, theClass } from '../../testing/things'
import { Today } from './Today'

type Cell = Schemas['BoardCell']
const cell = (more: Partial<Cell> = {}): Cell => ({
  written: 'C4',
  state: 'missing',
  takes: 0,
  comments: 0,
  overruled: false,
  earlier: false,
  ribbon: null as unknown as Cell['ribbon'],
  ...more,
})
const played = (take_id: string, result: Cell['result'], more: Partial<Cell> = {}): Cell =>
  cell({ take_id, state: 'done', result, deciding: 'C4 wavers', ribbon, takes: 1, ...more })

const step = (id: string, name: string): Schemas['BoardStep'] => ({
  id,
  version: 1,
  name,
  sentence: `${name}, as planned`,
  results: { clean: 1, 'not-yet': 1, missing: 2 },
})

function board(more: Partial<Schemas['Today']> = {}): Schemas['Today'] {
  const row = (id: string, name: string, ...cells: Cell[]) => ({ id, name, instrument: 'Flute', cells })
  return {
    class: theClass,
    guessed: 0,
    day: '2026-11-26',
    today: '2026-11-26',
    steps: [step('s1', 'Long tone')],
    sections: [
      {
        name: 'Flutes',
        played: 2,
        players: [
          row('ivo', 'Ivo Pellerin', played('t1', 'clean', { takes: 3, comments: 2 })),
          row('wren', 'Wren Ashdown', cell()),
        ],
      },
      {
        name: 'Clarinets',
        played: 1,
        players: [
          row('maro', 'Maro Quenby', played('t2', 'not-yet', { overruled: true, earlier: true })),
          row('teo', 'Teo Marrable', cell({ state: 'excused' })),
        ],
      },
    ],
    common: [
      {
        section: 'Clarinets',
        step: 's1',
        cause: 'break',
        players: 2,
        of: 3,
        sentence: '2 of 3 clarinets jumped to another partial: Long tone.',
        takes: ['t2'],
      },
    ],
    ...more,
  }
}

const tomorrow: Schemas['Tomorrow'] = {
  day: '2026-11-27',
  minutes: 8,
  total_s: 464,
  steps: [
    { name: 'Set up', sentence: 'set up', reason: '', new: false },
    { name: 'Register pair', sentence: 'register pair', reason: '2 of 3 clarinets jumped', new: true },
  ] as Schemas['Tomorrow']['steps'],
  left_out: ['Swell'],
  unfit: [
    { name: 'Overtones', reason: 'Alto saxophones: the note jumps.', why: 'they would play high for 0:08 of 0:20' },
  ],
}

/** lines are the board's event streams, one for each watching page. */
let lines: { url: string; listeners: Record<string, () => void>; closed: boolean }[]

function server(today = board(), more: Parameters<typeof serve>[0] = {}) {
  serve({
    'GET /classes/c/today': () => today,
    'GET /classes/c/flags': () => ({ flags: [] }),
    'GET /classes/c/tomorrow': () => tomorrow,
    'GET /classes': () => ({ classes: [theClass] }),
    ...more,
  })
}

const onThePage = async (at = '/class/c') => {
  const page = open(<Today />, { at, path: '/class/:classId' })
  await screen.findByRole('table')
  return page
}
const names = () => screen.getAllByRole('rowheader').map((h) => h.textContent)

beforeEach(() => {
  lines = []
  vi.stubGlobal(
    'EventSource',
    class {
      #line: (typeof lines)[0]
      constructor(url: string) {
        this.#line = { url, listeners: {}, closed: false }
        lines.push(this.#line)
      }
      addEventListener(name: string, told: () => void) {
        this.#line.listeners[name] = told
      }
      close() {
        this.#line.closed = true
      }
    },
  )
  server()
})

describe('the board', () => {
  it('tells each cell in words, whether it is seen or heard', async () => {
    await onThePage()
    const clean = screen.getByRole('link', {
      name: /^Ivo Pellerin: clean\. .*C4 wavers · 3 takes · 2 comments\. C4 held 8 s, in tune\.$/,
    })
    expect(clean.getAttribute('href')).toBe('/take/t1')
    expect(clean.textContent).toContain('3 takes · 2 comments')
    const overruled = screen.getByRole('link', { name: /^Maro Quenby: not yet/ })
    expect(overruled.textContent).toContain('before the step changed')
    expect(screen.getByText('not played', { selector: 'td span' })).toBeTruthy()
    expect(screen.getByText('excused')).toBeTruthy()
    expect(screen.getByText('1 of 2 played', { exact: false })).toBeTruthy()
  })

  it('keeps the choice in the address', async () => {
    const { where } = await onThePage()
    fireEvent.change(screen.getByLabelText('Section'), { target: { value: 'Clarinets' } })
    expect(where()).toBe('/class/c?section=Clarinets')
    expect(names()).not.toContain('Ivo Pellerin')
    fireEvent.change(screen.getByLabelText('With'), { target: { value: 'clean' } })
    expect(where()).toBe('/class/c?section=Clarinets&show=clean')
    expect(screen.getByText(/Nobody fits this choice/)).toBeTruthy()
    fireEvent.change(screen.getByLabelText('Section'), { target: { value: '' } })
    expect(names()).toContain('Ivo Pellerin')
    expect(names()).not.toContain('Maro Quenby')
  })

  it('opens as an address says', async () => {
    await onThePage('/class/c?section=Clarinets')
    expect(names()).not.toContain('Ivo Pellerin')
    expect(screen.getByLabelText('Section')).toHaveProperty('value', 'Clarinets')
  })

  it('shows the takes behind what is common', async () => {
    await onThePage()
    fireEvent.click(screen.getByRole('button', { name: /2 of 3 clarinets jumped/ }))
    expect(names().filter((n) => /Pellerin|Ashdown|Marrable/.test(n ?? ''))).toEqual([])
    expect(names()).toContain('Maro Quenby')
    fireEvent.click(screen.getByRole('button', { name: 'Show everybody again' }))
    expect(names()).toContain('Ivo Pellerin')
  })

  it('follows a cell’s link without loading the page anew, and leaves other clicks to the browser', async () => {
    const { where } = await onThePage()
    const link = screen.getByRole('link', { name: /^Ivo Pellerin: clean/ })
    const kept = fireEvent.click(link, { ctrlKey: true })
    expect(kept).toBe(true) // the browser opens a tab
    expect(where()).toBe('/class/c')
    expect(fireEvent.click(link)).toBe(false)
    await waitFor(() => expect(where()).toBe('/take/t1'))
  })

  it('looks again when the class’s line says so, and closes the line behind it', async () => {
    let today = board()
    server(today, { 'GET /classes/c/today': () => today })
    const page = await onThePage()
    expect(lines.map((l) => l.url)).toEqual(['/api/classes/c/events'])
    today = board({
      sections: [
        {
          name: 'Flutes',
          played: 1,
          players: [{ id: 'wren', name: 'Wren Ashdown', instrument: 'Flute', cells: [played('t7', 'nearly')] }],
        },
      ],
    })
    act(() => lines[0]?.listeners.changed?.())
    await screen.findByRole('link', { name: /^Wren Ashdown: nearly/ })
    page.unmount()
    expect(lines[0]?.closed).toBe(true)
  })

  it('keeps to ribbons and marks where there are many steps, with the words for the ear', async () => {
    const steps = [step('s1', 'Long tone'), step('s2', 'Walk'), step('s3', 'Sing')]
    const cells = [played('t1', 'clean'), cell(), cell({ state: 'not-asked' })]
    server(
      board({
        steps,
        sections: [
          { name: 'Flutes', played: 1, players: [{ id: 'ivo', name: 'Ivo Pellerin', instrument: 'Flute', cells }] },
        ],
        common: [],
      }),
    )
    await onThePage()
    const link = screen.getByRole('link', { name: /Ivo Pellerin: clean. C4 wavers./ })
    expect(link.textContent).not.toContain('C4 wavers')
    expect(link.getAttribute('title')).toBe('C4 wavers')
    expect(screen.queryByText('not for this instrument')).toBeNull()
    expect(screen.getByRole('link', { name: 'Walk: change the step' })).toBeTruthy()
  })

  it('goes to other days, and not into the future', async () => {
    const { where } = await onThePage()
    expect(screen.getByRole('button', { name: 'The day after' })).toHaveProperty('disabled', true)
    fireEvent.click(screen.getByRole('button', { name: 'The day before' }))
    await waitFor(() => expect(where()).toBe('/class/c?day=2026-11-25'))
  })

  it('says what to do where nothing is planned', async () => {
    server(board({ steps: [], sections: [], common: [] }))
    open(<Today />, { at: '/class/c', path: '/class/:classId' })
    await screen.findByText(/Nothing is planned for this day/)
  })

  it('says what is wrong', async () => {
    server(board(), { 'GET /classes/c/today': () => refuse(404, 'There is no such class, or it is not yours.') })
    open(<Today />, { at: '/class/c', path: '/class/:classId' })
    expect((await screen.findByRole('alert')).textContent).toContain('not yours')
  })
})

describe('beside the board', () => {
  it('proposes tomorrow with reasons, and plans it with one press', async () => {
    let planned = false
    server(board(), {
      'POST /classes/c/tomorrow': () => {
        planned = true
        return { ...tomorrow, steps: tomorrow.steps.map((s) => ({ ...s, new: false })) }
      },
    })
    await onThePage()
    const head = await screen.findByText(/Friday: 7:44 of 8 minutes/)
    expect(head.textContent).toContain('1 of 2 steps proposed')
    expect(screen.getByText('2 of 3 clarinets jumped')).toBeTruthy()
    expect(screen.getByText('Left out to make room: Swell.')).toBeTruthy()
    expect(screen.getByText(/Overtones would help/).textContent).toBe(
      'Overtones would help (Alto saxophones: the note jumps), but does not fit: they would play high for 0:08 of 0:20.',
    )
    fireEvent.click(screen.getByRole('button', { name: 'Put it into the plan', hidden: true }))
    await waitFor(() => expect(screen.getByText(/^Friday:/).textContent).toContain('as planned'))
    expect(planned).toBe(true)
  })

  it('shows what players told until it is seen', async () => {
    const flag = { id: 'f1', player: 'Teo Marrable', kind: 'hurts', words: 'my lip', raised_at: '2026-11-26T08:00:00Z' }
    server(board(), {
      'GET /classes/c/flags': () => ({ flags: [flag] }),
      'PUT /classes/c/flags/f1/seen': () => ({ flags: [] }),
    })
    await onThePage()
    const told = await screen.findByRole('region', { name: 'From the players' })
    expect(told.textContent).toContain('Teo Marrable says that it hurts: “my lip”')
    fireEvent.click(within(told).getByRole('button', { name: 'Seen' }))
    await waitFor(() => expect(screen.queryByRole('region', { name: 'From the players' })).toBeNull())
    expect(log).toContain('PUT /classes/c/flags/f1/seen')
  })
})
