import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { open } from '../../testing/page'
import { log, refuse, serve } from '../../testing/server'
import { theClass } from '../../testing/things'
import { Directors } from './Directors'
import { Excused } from './Excused'
import type { Preview, Row, SetUp } from './queries'
import { Roster } from './Roster'
import { Years } from './Years'

const player = (id: string, first: string, instrument: string, section: string) => ({
  id,
  first,
  last: 'Testerly',
  instrument,
  section,
  variant: '',
  stage: 0,
  external_id: '',
})

const setUp = (more: object = {}) =>
  ({
    class: theClass,
    today: '2026-11-26',
    stage: 2,
    archived: false,
    directors: [{ id: 'odile', name: 'Odile Farrow', you: true }],
    invited: [],
    players: [player('ada', 'Ada', 'clarinet', 'Clarinets'), player('bo', 'Bo', 'trombone', 'Trombones')],
    fields: [
      { key: 'first', label: 'First name', form: 'text', most: 60, required: true },
      { key: 'last', label: 'Last name', form: 'text', most: 60 },
      { key: 'instrument', label: 'Instrument', form: 'instrument', required: true },
      { key: 'variant', label: 'Built as', form: 'variant' },
      { key: 'stage', label: 'Stage', form: 'stage' },
    ],
    instruments: [
      { key: 'clarinet', name: 'B♭ clarinet', variants: [] },
      {
        key: 'trombone',
        name: 'Trombone',
        variants: [
          { key: '', name: 'straight' },
          { key: 'f', name: 'with F valve' },
        ],
      },
    ],
    exceptions: [{ id: 'e1', player_id: 'bo', from: '2026-11-26', to: '2026-11-27', why: 'ill' }],
    ...more,
  }) as unknown as SetUp

const row = (line: number, first: string, more: Partial<Row> = {}): Row => ({
  line,
  first,
  last: 'Newman',
  instrument: 'clarinet',
  variant: '',
  stage: 0,
  external_id: '',
  player_id: '',
  action: 'add',
  problems: [],
  ...more,
})

let saved: Row[]
const school = (more: Parameters<typeof serve>[0] = {}) => {
  saved = []
  serve({
    'POST /classes/c/roster': ({ body }) => {
      saved = (body as { rows: Row[] }).rows
      return setUp()
    },
    ...more,
  })
}
beforeEach(() => school())

describe('who directs the class', () => {
  it('asks a colleague, takes it back, and cannot be left by the last one', async () => {
    school({
      'POST /classes/c/directors': ({ body }) =>
        setUp({ invited: [{ email: (body as { email: string }).email, at: '2026-11-26T08:00:00Z' }] }),
      'DELETE /classes/c/invitations': () => setUp(),
    })
    open(<Directors classId="c" setUp={setUp({ invited: [{ email: 'x@y.example', at: '2026-11-26T08:00:00Z' }] })} />)
    expect(screen.queryByRole('button', { name: /Leave/ })).toBeNull()
    fireEvent.change(screen.getByLabelText('Ask a colleague, by email'), { target: { value: 'tobin@y.example' } })
    fireEvent.click(screen.getByRole('button', { name: 'Ask' }))
    await waitFor(() => expect(log).toContain('POST /classes/c/directors'))
    fireEvent.click(screen.getByRole('button', { name: 'Take back the invitation to x@y.example' }))
    await waitFor(() => expect(log.some((l) => l.startsWith('DELETE /classes/c/invitations'))).toBe(true))
  })
})

describe('a child who cannot sign in', () => {
  it('gets a new PIN on the screen, once', async () => {
    school({ 'POST /classes/c/players/ada/pin': () => ({ pin: '314159' }) })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Sign-in of Ada Testerly' }))
    fireEvent.click(await screen.findByRole('button', { name: 'New PIN' }))
    expect((await screen.findByRole('status')).textContent).toContain('314159')
    expect(screen.queryByRole('button', { name: 'New PIN' })).toBeNull()
  })

  it('or is signed out everywhere, with the PIN as it was', async () => {
    school({ 'DELETE /classes/c/players/bo/sessions': () => undefined })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Sign-in of Bo Testerly' }))
    fireEvent.click(await screen.findByRole('button', { name: 'Sign out everywhere' }))
    await screen.findByText('Bo is signed out everywhere.')
    expect(log).toContain('DELETE /classes/c/players/bo/sessions')
  })
})

describe('the list of players', () => {
  it('stands by section, and a row is changed where it stands', async () => {
    open(<Roster classId="c" setUp={setUp()} />)
    expect(screen.getByRole('heading', { name: 'Clarinets 1' })).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Change Bo Testerly' }))
    const form = screen.getByRole('form', { name: 'Change Bo Testerly' })
    fireEvent.change(within(form).getByLabelText('Built as'), { target: { value: 'f' } })
    fireEvent.change(within(form).getByLabelText('Stage'), { target: { value: '3' } })
    fireEvent.submit(form)
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0]).toMatchObject({ player_id: 'bo', variant: 'f', stage: 3, action: 'change' })
    await waitFor(() => expect(screen.queryByRole('form')).toBeNull())
  })

  it('takes a new player in, once there is an instrument', async () => {
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Add a player' }))
    fireEvent.change(screen.getByLabelText('First name'), { target: { value: 'Cy' } })
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByLabelText('Instrument'), { target: { value: 'clarinet' } })
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(saved[0]).toMatchObject({ first: 'Cy', instrument: 'clarinet', player_id: '' }))
  })

  it('loses nothing of what was written when the server says no', async () => {
    school({ 'POST /classes/c/roster': () => refuse(422, 'Two players cannot have the same school number.') })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Change Ada Testerly' }))
    fireEvent.change(screen.getByLabelText('First name'), { target: { value: 'Adah' } })
    fireEvent.submit(screen.getByRole('form'))
    expect((await screen.findByRole('alert')).textContent).toContain('same school number')
    expect(screen.getByLabelText('First name')).toHaveProperty('value', 'Adah')
  })

  it('says what to do while it is empty', () => {
    open(<Roster classId="c" setUp={setUp({ players: [] })} />)
    expect(screen.getByText(/Nobody is in the class yet/)).toBeTruthy()
  })
})

describe('a list brought in', () => {
  const preview = (...rows: Row[]): Preview => ({
    format: 'csv',
    columns: [
      { name: 'Vorname', meaning: 'first', headed: true, samples: ['Cy'] },
      { name: 'Shoe size', meaning: '', headed: true, samples: ['36'] },
    ],
    meanings: ['name', 'first', 'instrument', '-'],
    classes: [],
    rows,
  })
  const bringIn = async (p: Preview) => {
    school({ 'POST /classes/c/roster/preview': () => p })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Import roster' }))
    const file = new File(['Vorname,Shoe size\n'], 'list.csv')
    fireEvent.change(await screen.findByLabelText('The list'), { target: { files: [file] } })
    await screen.findByTestId('import-counts')
  }

  it('is shown row by row first: what is new, what changes, which column means what', async () => {
    await bringIn(preview(row(2, 'Cy'), row(3, 'Ada', { action: 'change' }), row(4, 'Bo', { action: 'same' })))
    expect(screen.getByText(/Understood as: Vorname → first name\. Which column has the instruments/)).toBeTruthy()
    expect(screen.getByTestId('import-counts').textContent).toBe('1 new, 1 changed, 1 as they are.')
    expect(saved).toHaveLength(0)
    fireEvent.click(screen.getByRole('button', { name: 'Import 2 players' }))
    await waitFor(() => expect(saved.map((r) => r.first)).toEqual(['Cy', 'Ada']))
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  })

  it('waits for what is to be mended, or left out', async () => {
    const lost = row(2, 'Cy', { instrument: '', problems: [{ field: 'instrument', remedy: 'choose an instrument' }] })
    const twice = row(3, 'Di', { problems: [{ field: 'row', remedy: 'Di Newman is there twice' }] })
    await bringIn(preview(lost, twice))
    expect(screen.getByTestId('import-counts').textContent).toContain('2 to mend')
    const take = () => screen.getByRole('button', { name: /^Import \d/ })
    expect(take()).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByLabelText('Instrument'), { target: { value: 'trombone' } })
    fireEvent.click(screen.getAllByRole('button', { name: 'Leave it out' })[1] as HTMLElement)
    expect(screen.getByTestId('import-counts').textContent).toBe('1 new, 0 changed, 0 as they are.')
    fireEvent.click(take())
    await waitFor(() => expect(saved.map((r) => [r.first, r.instrument])).toEqual([['Cy', 'trombone']]))
  })

  it('takes a word once for all who have it, and tells two of one name apart in place', async () => {
    const open = [{ field: 'instrument', remedy: '"Cl. zwo" is not known here' }]
    const twin = (line: number, more: Partial<Row> = {}) =>
      row(line, 'Di', { said: 'Cl. zwo', instrument: '', problems: open, ...more })
    await bringIn(preview(twin(2), twin(3, { problems: [...open, { field: 'row', remedy: 'Di is there twice' }] })))
    expect(screen.getAllByText(/One more has this word/)).toHaveLength(2)
    fireEvent.change(screen.getAllByLabelText('Instrument')[0] as HTMLElement, { target: { value: 'clarinet' } })
    expect(screen.getByTestId('import-counts').textContent).toContain('1 to mend')
    const last = screen.getByLabelText('Last name')
    fireEvent.change(last, { target: { value: 'Otherwise' } })
    fireEvent.blur(last)
    fireEvent.click(screen.getByRole('button', { name: 'Import 2 players' }))
    await waitFor(() => expect(saved.map((r) => [r.last, r.instrument])[1]).toEqual(['Otherwise', 'clarinet']))
  })

  it('asks for each empty cell by itself: nothing said is no word', async () => {
    const empty = (line: number, first: string) =>
      row(line, first, { instrument: '', problems: [{ field: 'instrument', remedy: 'choose an instrument' }] })
    await bringIn(preview(empty(2, 'Cy'), empty(3, 'Di')))
    fireEvent.change(screen.getAllByLabelText('Instrument')[0] as HTMLElement, { target: { value: 'clarinet' } })
    expect(screen.getByTestId('import-counts').textContent).toContain('1 to mend')
  })

  it('asks which column is what, and which class', async () => {
    const asked: string[] = []
    school({
      'POST /classes/c/roster/preview': ({ query }: { query: URLSearchParams }) => {
        asked.push(query.toString())
        return query.get('class_id') || query.get('meaning')
          ? preview(row(2, 'Cy'))
          : { ...preview(), classes: [{ id: 'c7', title: 'Winds', players: 3 }] }
      },
    })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Import roster' }))
    fireEvent.change(await screen.findByLabelText('The list'), { target: { files: [new File(['x'], 'l.csv')] } })
    await screen.findByText(/Which column has the names/)
    fireEvent.change(screen.getByLabelText('Vorname: Cy'), { target: { value: 'name' } })
    await screen.findByTestId('import-counts')
    expect(asked[1]).toBe('meaning=name&meaning=-')
    fireEvent.change(screen.getByLabelText('The list'), { target: { files: [new File(['y'], 'l.zip')] } })
    fireEvent.change(await screen.findByLabelText(/Which is this one/), { target: { value: 'c7' } })
    await screen.findByTestId('import-counts')
    expect(asked[3]).toBe('class_id=c7')
  })

  it('says why a file cannot be read', async () => {
    school({ 'POST /classes/c/roster/preview': () => refuse(422, 'This is not a list: save the sheet as CSV first.') })
    open(<Roster classId="c" setUp={setUp()} />)
    fireEvent.click(screen.getByRole('button', { name: 'Import roster' }))
    fireEvent.change(await screen.findByLabelText('The list'), { target: { files: [new File(['x'], 'photo.csv')] } })
    expect((await screen.findByRole('alert')).textContent).toContain('save the sheet as CSV')
  })
})

describe('who is excused', () => {
  const asked: unknown[] = []
  const week = {
    'GET /classes/c/plans/2026-11-23': () => ({
      items: [
        { key: 's1', kind: 'swell' },
        { key: 's2', kind: 'care' },
      ],
    }),
    'GET /catalogue': () => ({
      kinds: [
        { key: 'swell', name: 'Swell' },
        { key: 'care', name: 'Care' },
      ],
      choices: [],
    }),
    'POST /classes/c/exceptions': ({ body }: { body: unknown }) => {
      asked.push(body)
      return setUp()
    },
    'DELETE /classes/c/exceptions/e1': () => setUp({ exceptions: [] }),
  }
  beforeEach(() => {
    asked.length = 0
    school(week)
  })

  it('is said with the days, and ended again', async () => {
    open(<Excused classId="c" setUp={setUp()} />)
    fireEvent.change(screen.getByLabelText('Why (for you)'), { target: { value: 'new braces' } })
    fireEvent.change(screen.getByLabelText('To'), { target: { value: '2026-11-30' } })
    fireEvent.click(screen.getByRole('button', { name: 'Excuse' }))
    await waitFor(() =>
      expect(asked).toEqual([{ player_id: 'ada', from: '2026-11-26', to: '2026-11-30', why: 'new braces' }]),
    )
    const [excused] = screen.getAllByRole('listitem')
    expect(excused?.textContent).toMatch(/Bo Testerly.*2026-11-26 to 2026-11-27, ill/)
    fireEvent.click(within(excused as HTMLElement).getByRole('button'))
    await waitFor(() => expect(log).toContain('DELETE /classes/c/exceptions/e1'))
  })

  it('may be so of one step of the week alone', async () => {
    const exceptions = [{ id: 'e2', player_id: 'ada', step_id: 's2', from: '2026-11-26', to: '2026-11-26', why: '' }]
    open(<Excused classId="c" setUp={setUp({ exceptions })} />)
    await screen.findByText(/, of 2. Care/)
    fireEvent.change(screen.getByLabelText('Of'), { target: { value: 's1' } })
    fireEvent.click(screen.getByRole('button', { name: 'Excuse' }))
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]).toMatchObject({ player_id: 'ada', step_id: 's1' })
  })
})

describe('years', () => {
  it('offer everything in open formats', () => {
    serve({ 'GET /classes': () => ({ classes: [theClass] }) })
    open(<Years classId="c" setUp={setUp()} />)
    expect(screen.getByRole('link', { name: 'Everything' }).getAttribute('href')).toBe('/api/classes/c/everything.zip')
    expect(screen.getByRole('link', { name: 'Everything, with recordings' }).getAttribute('href')).toBe(
      '/api/classes/c/everything.zip?sounds=true',
    )
  })

  it('begin the next one with the players that stay', async () => {
    let made: unknown
    serve({
      'GET /classes': () => ({ classes: [theClass] }),
      'POST /classes': ({ body }) => {
        made = body
        return setUp({ class: { ...theClass, id: 'next' } })
      },
    })
    const { where } = open(<Years classId="c" setUp={setUp()} />)
    fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Ferry Bell Winds 2' } })
    fireEvent.click(screen.getByLabelText(/It is the next year/))
    fireEvent.click(screen.getByLabelText('Bo Testerly'))
    fireEvent.click(screen.getByRole('button', { name: 'Begin it' }))
    await waitFor(() => expect(where()).toBe('/class/next/set-up'))
    expect(made).toEqual({ name: 'Ferry Bell Winds 2', like: 'c', keep: ['ada'] })
  })
})
