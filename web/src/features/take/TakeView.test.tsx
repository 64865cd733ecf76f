import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { open } from '../../testing/page'
import { refuse, serve } from '../../testing/server'
import { ribbon, theClass, verdict } from '../../testing/things'
import type { TakeDetail } from './queries'
import { TakeView } from './TakeView'

const measure = (key: string, label: string, text: string, more: Partial<Schemas['Spoken']> = {}) =>
  ({
    key,
    label,
    text,
    wanted: 'at most ±12 cents',
    note: 0,
    value: 1,
    limit: 1,
    judged: true,
    within: true,
    cause: '',
    excess: 0,
    ...more,
  }) as Schemas['Spoken']

const steady = measure('steadiness', 'Steadiness', 'wavers ±20 cents', { within: false })

const take = (more: Partial<TakeDetail> = {}): TakeDetail =>
  ({
    id: 't1',
    player: 'Maro Quenby',
    instrument: 'B♭ clarinet',
    class: theClass.name,
    class_id: 'c',
    day: '2026-11-26',
    received_at: '2026-11-26T16:00:00Z',
    source: 'microphone',
    state: 'done',
    score: {
      title: 'Long tone, counted',
      segments: [
        {
          phase: 'play',
          sounds: true,
          start_beat: 0,
          beats: 8,
          written_name: 'C4',
          concert: 'B♭3',
          target_midi: 58,
          fingering: { text: 'T 123' },
        },
      ],
    },
    score_start_s: 1,
    verdict: {
      ...verdict('nearly', 'C4 wavers ±20 cents.'),
      deciding: steady,
      measures: [
        measure('tempo', 'Tempo', 'kept', { note: -1 }),
        steady,
        measure('drift', 'Drift', 'stays level', { judged: false }),
      ],
    },
    ribbon,
    recording: { snr_db: 42.4, noise_floor_db: -68, clipped_ratio: 0.012, faults: ['too-quiet'] },
    events: [
      { kind: 'gap', t_s: 6, duration_s: 0.31, note: 0 },
      { kind: 'break', t_s: 8, duration_s: 0.5, note: 0, interval_semitones: 19, partial: 3 },
    ],
    comments: [
      {
        id: 'c1',
        kind: 'comment',
        by: 'Odile Farrow',
        body: 'Here it leaks.',
        at_s: 6.5,
        take_id: 't1',
        written_at: '2026-11-26T17:00:00Z',
      },
    ],
    ...more,
  }) as unknown as TakeDetail

const others = {
  previous: { id: 't0', name: 'Maro Quenby', day: '2026-11-25', result: 'not-yet' },
  best: { id: 'tb', name: 'Maro Quenby', day: '2026-11-20', result: 'clean' },
  mates: [{ id: 'tm', name: 'Linnet Oakshade', day: '2026-11-26', result: 'clean' }],
}

const school = (of = take(), more: Parameters<typeof serve>[0] = {}) =>
  serve({ 'GET /takes/t1': () => of, 'GET /takes/t1/others': () => others, ...more })

const onThePage = async () => {
  open(<TakeView />, { at: '/take/t1', path: '/take/:takeId' })
  await screen.findByRole('heading', { name: 'Maro Quenby' })
}
const audio = () => document.querySelector('audio') as HTMLAudioElement

beforeEach(() => school())

describe('a take', () => {
  it('is told: the word, every measure with its limit, and which one decided', async () => {
    await onThePage()
    expect(screen.getByText('C4 wavers ±20 cents.')).toBeTruthy()
    const row = screen.getByRole('row', { name: /Steadiness/ })
    expect(row.textContent).toContain('outside the limit')
    expect(row.textContent).toContain('decided')
    expect(screen.getByRole('row', { name: /Drift/ }).textContent).toContain('shown, not judged')
    expect(screen.getByRole('table', { name: 'The whole step' })).toBeTruthy()
    expect(screen.getByRole('table', { name: /C4 sounds B♭3 · T 123/ })).toBeTruthy()
    expect(screen.getByText(/42 dB above the room.*1.2 % clipped; too quiet/)).toBeTruthy()
  })

  it('has its tone beside the player’s own, or why it cannot be compared', async () => {
    const change = (quality: 'clearness' | 'fullness', word: string, spreads: number, sure?: 'sure') => ({
      quality,
      label: quality,
      word,
      spreads,
      beyond: 9,
      text: `than in 9 of the last 10 takes of ${quality}`,
      ...(sure && { sure }),
    })
    const tone = {
      against: 10,
      says: 'The tone is breathier than usual: compared with 10 takes of these notes.',
      changes: [change('clearness', 'breathier', -3.4, 'sure'), change('fullness', 'as usual', 0.2)],
    }
    serve({ 'GET /takes/t1': () => take({ tone }) })
    open(<TakeView />, { at: '/take/t1', path: '/take/:takeId' })
    await screen.findByText(tone.says)
    expect(screen.getByText('breathier').className).toContain('semibold')
    expect(screen.getByText('as usual').className).not.toContain('semibold')
  })

  it('goes to what happened, from just before it', async () => {
    await onThePage()
    expect(screen.getByText('Break, 0.50 s, 19 half steps up (partial 3)')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /^Play Gap at/ }))
    expect(audio().currentTime).toBeCloseTo(5.3)
    fireEvent.click(screen.getByRole('button', { name: '▸ 5.5 s' })) // the pinned comment, counted from the first click
    expect(audio().currentTime).toBeCloseTo(5.8)
  })

  it('offers itself in open formats', async () => {
    await onThePage()
    const links = screen.getAllByRole('link').map((l) => l.getAttribute('href'))
    for (const file of ['audio.wav', 'audio.flac', 'contour.csv', 'measures.json'])
      expect(links).toContain(`/api/takes/t1/${file}`)
  })

  it('takes the director’s word beside the measured one, and gives it back', async () => {
    const words: unknown[] = []
    school(take(), {
      'PUT /takes/t1/review': ({ body }) => {
        const { result } = body as { result: string }
        words.push(result)
        return take(result === 'measured' ? {} : { overruled: result as TakeDetail['overruled'] })
      },
    })
    await onThePage()
    fireEvent.click(screen.getByRole('radio', { name: /clean/ }))
    await screen.findByText('Measured: nearly.')
    fireEvent.click(screen.getByRole('radio', { name: /clean/ }))
    await waitFor(() => expect(screen.queryByText('Measured: nearly.')).toBeNull())
    expect(words).toEqual(['clean', 'measured'])
  })

  it('is commented, pinned to where the sound stands', async () => {
    let said: unknown
    school(take(), {
      'PUT /takes/t1/acts/*': ({ body }) => {
        said = body
        return take({ comments: [] })
      },
    })
    await onThePage()
    fireEvent.change(screen.getByLabelText('To Maro'), { target: { value: 'Better.' } })
    audio().currentTime = 7.25
    fireEvent.click(screen.getByLabelText(/^pin it to/))
    expect(screen.getByText(/pin it to 6.3 s/)).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Send the comment' }))
    await waitFor(() => expect(said).toEqual({ kind: 'comment', words: 'Better.', at_s: 7.25 }))
    await waitFor(() => expect(screen.getByLabelText('To Maro')).toHaveProperty('value', ''))
  })

  it('keeps what was written when it cannot be sent', async () => {
    school(take(), { 'PUT /takes/t1/acts/*': () => refuse(503, 'Not now.') })
    await onThePage()
    fireEvent.change(screen.getByLabelText('To Maro'), { target: { value: 'Better.' } })
    fireEvent.click(screen.getByRole('button', { name: 'Send the comment' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Not now.')
    expect(screen.getByLabelText('To Maro')).toHaveProperty('value', 'Better.')
  })

  it('loops a stretch that is marked where the sound is', async () => {
    await onThePage()
    audio().currentTime = 5
    fireEvent.click(screen.getByRole('button', { name: 'Loop from here' }))
    audio().currentTime = 7.5
    fireEvent.click(screen.getByRole('button', { name: 'to here' }))
    expect(screen.getByRole('button', { name: 'looping 2.5 s' }).getAttribute('aria-pressed')).toBe('true')
    Object.defineProperty(audio(), 'paused', { value: false, configurable: true })
    audio().currentTime = 7.6
    await waitFor(() => expect(audio().currentTime).toBe(5))
    fireEvent.click(screen.getByRole('button', { name: 'No loop' }))
    expect(screen.getByRole('button', { name: 'Loop from here' })).toBeTruthy()
  })

  it('is laid beside another, whose name stays hidden until it is asked for', async () => {
    school(take(), { 'GET /takes/tm': () => take({ id: 'tm', player: 'Linnet Oakshade' }) })
    await onThePage()
    const mate = await screen.findByRole('button', { name: /section mate 1/ })
    expect(document.body.textContent).not.toContain('Linnet')
    fireEvent.click(mate)
    const figure = (await screen.findByRole('link', { name: 'section mate 1' })).closest('figure') as HTMLElement
    expect(figure.textContent).toMatch(/Thursday, (26 November|November 26): C4 wavers/)
    expect(within(figure).getByRole('group', { name: 'section mate 1' })).toBeTruthy()
    fireEvent.click(screen.getByLabelText('show names'))
    expect(screen.getByRole('button', { name: /Linnet Oakshade/ })).toBeTruthy()
  })

  it('draws the spectrogram only when it is asked for', async () => {
    const points = btoa(String.fromCharCode(...Array.from({ length: 8 }, (_, n) => 30 * n)))
    let asked = 0
    school(take(), {
      'GET /takes/t1/spectrogram': () => {
        asked++
        return { points, bins: 4, bin_hz: 1000, hop_s: 0.02 }
      },
    })
    vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null)
    await onThePage()
    expect(asked).toBe(0)
    fireEvent.click(screen.getByRole('button', { name: 'Spectrogram' }))
    await screen.findByRole('img', { name: 'Spectrogram up to 4 kHz' })
    expect(asked).toBe(1)
    fireEvent.click(screen.getByRole('button', { name: 'Hide the spectrogram' }))
    expect(screen.queryByRole('img', { name: /Spectrogram/ })).toBeNull()
  })
})

describe('a take that is not all there', () => {
  it('is waited for, and shown as soon as it was listened to', async () => {
    let state: TakeDetail['state'] = 'waiting'
    school(take(), {
      'GET /takes/t1': () => take(state === 'waiting' ? { state, verdict: undefined, ribbon: undefined } : {}),
    })
    await onThePage()
    await screen.findByText(/This take is being listened to/)
    state = 'done'
    await screen.findByText('C4 wavers ±20 cents.')
  })

  it('says why it failed', async () => {
    school(take({ state: 'failed', failure: 'The recording is missing. Please record again.' }))
    await onThePage()
    expect(screen.getByRole('alert').textContent).toContain('record again')
  })

  it('keeps its measures where the recording is gone', async () => {
    school(take({ sound_gone: true }))
    await onThePage()
    expect(screen.getByText(/What was measured stays/)).toBeTruthy()
    expect(audio()).toBeNull()
    expect(screen.getByRole('row', { name: /Steadiness/ })).toBeTruthy()
  })

  it('is nobody else’s', async () => {
    serve({ 'GET /takes/t1': () => refuse(404, 'There is no such take, or it is not yours.') })
    open(<TakeView />, { at: '/take/t1', path: '/take/:takeId' })
    expect((await screen.findByRole('alert')).textContent).toContain('not yours')
  })
})
