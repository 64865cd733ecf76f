import 'fake-indexeddb/auto'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, fireEvent, renderHook, screen, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import type { Outbox } from '../../device/outbox'
import { OutboxContext } from '../../device/useOutbox'
import { holdBefore } from '../../ear/ask'
import { open } from '../../testing/page'
import { log, serve } from '../../testing/server'
import { ribbon, verdict } from '../../testing/things'
import { Outcome } from './Outcome'
import type { ShownStep } from './overlay'
import { useHold } from './useHold'

vi.mock('../../ear/ask', () => ({ holdBefore: vi.fn() }))

/** outboxWith is an outbox that stands as the test wants it to. */
const outboxWith = (...items: object[]) => {
  const state = { items, going: undefined, stopped: undefined }
  return { watch: () => () => {}, now: () => state } as unknown as Outbox
}

const heard = { verdict: verdict('nearly', 'C4 wavers ±20 cents.'), ribbon, small: ribbon }
const onDevice = (more: object = {}) => ({
  id: 't1',
  kind: 'take',
  state: 'waiting',
  madeAt: 0,
  take: { heard, source: 'microphone' },
  ...more,
})
const served = (more: object = {}) => ({
  id: 't1',
  state: 'done',
  verdict: heard.verdict,
  ribbon,
  comments: [],
  ...more,
})

const told = vi.fn()
const shown = (outbox: Outbox, more: Partial<Parameters<typeof Outcome>[0]> = {}) =>
  open(
    <OutboxContext value={outbox}>
      <Outcome
        takeId="t1"
        cautions={['Lips hurt? Stop.']}
        onHurt={() => told('hurts')}
        hold={undefined}
        onAgain={() => told('again')}
        onDone={() => told('next')}
        done="Next step"
        {...more}
      />
    </OutboxContext>,
  )

beforeEach(() => told.mockReset())

describe('how it went', () => {
  it('is heard back out of this page, and safety is in reach', async () => {
    URL.createObjectURL = vi.fn(() => 'blob:mine')
    URL.revokeObjectURL = vi.fn()
    serve({ 'GET /takes/t1': () => served() })
    const page = shown(outboxWith(), { own: new Blob(['sound']) })
    await screen.findByText('C4 wavers ±20 cents.')
    await screen.findByRole('group', { name: 'Your take' })
    expect(page.container.querySelector('audio')?.getAttribute('src')).toBe('blob:mine')
    expect(screen.getByText('Lips hurt? Stop.')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /It hurts/ }))
    expect(told).toHaveBeenCalledWith('hurts')
    page.unmount()
    expect(URL.revokeObjectURL).toHaveBeenCalledWith('blob:mine')
  })

  it('is told by the device at once, without the server', async () => {
    serve({})
    shown(outboxWith(onDevice()))
    expect(screen.getByText('C4 wavers ±20 cents.')).toBeTruthy()
    expect(screen.getByText('More air.')).toBeTruthy()
    expect(document.querySelector('[data-verdict]')?.getAttribute('data-verdict')).toBe('nearly')
    expect(log).toEqual([])
    fireEvent.click(screen.getByRole('button', { name: 'Again' }))
    fireEvent.click(screen.getByRole('button', { name: 'Next step' }))
    expect(told.mock.calls.flat()).toEqual(['again', 'next'])
  })

  it('is the server’s word once it is there, and says where the device had heard otherwise', async () => {
    serve({
      'GET /takes/t1': () =>
        served({
          verdict: verdict('clean', 'In tune.'),
          device_result: 'nearly',
          tuning: 'Move the slide out by about 8 mm.',
        }),
    })
    shown(outboxWith(onDevice({ state: 'sent' })))
    await screen.findByText('In tune.')
    expect(screen.getByTestId('differs').textContent).toBe(
      'This device had heard “nearly”. The second listening counts.',
    )
    expect(screen.getByText(/Move the slide out/)).toBeTruthy()
    expect(screen.getByRole('group', { name: 'Your take' })).toBeTruthy()
  })

  it('says a tone that is not as usual, and nothing of one that is', async () => {
    const change = {
      quality: 'clearness',
      label: 'Clear or breathy',
      word: 'breathier',
      spreads: -3,
      beyond: 9,
      text: '',
    }
    const tone = (sure?: 'sure') => ({
      against: 10,
      says: 'The tone.',
      changes: [{ ...change, ...(sure && { sure }) }],
    })
    serve({ 'GET /takes/t1': () => served({ tone: tone('sure') }) })
    const page = shown(outboxWith())
    await screen.findByText('The tone.')
    page.unmount()
    serve({ 'GET /takes/t1': () => served({ tone: tone() }) })
    shown(outboxWith())
    await screen.findByText('C4 wavers ±20 cents.')
    expect(screen.queryByText('The tone.')).toBeNull()
  })

  it('shows the director’s word where there is one', async () => {
    serve({ 'GET /takes/t1': () => served({ overruled: 'clean' }) })
    shown(outboxWith())
    await waitFor(() => expect(document.querySelector('[data-verdict]')?.getAttribute('data-verdict')).toBe('clean'))
    expect(screen.getByText('clean, the director’s word', { selector: 'span' })).toBeTruthy()
  })

  it('says that it listens, or that a file is kept until it has gone up', () => {
    serve({})
    const { unmount } = shown(outboxWith(onDevice({ take: { source: 'microphone' } })))
    expect(screen.getByText('Listening …')).toBeTruthy()
    unmount()
    shown(outboxWith(onDevice({ take: { source: 'file' } })))
    expect(screen.getByText(/Kept. It is listened to when it has gone up/)).toBeTruthy()
  })

  it('says why a take was refused, and lets it be played again', () => {
    serve({})
    shown(outboxWith(onDevice({ state: 'refused', problem: 'This step is gone.', take: { source: 'microphone' } })))
    expect(screen.getByRole('alert').textContent).toBe('This step is gone.')
    expect(screen.getByRole('button', { name: 'Again' })).toBeTruthy()
  })

  it('cheers when a take passed its rung, and offers the next step first', async () => {
    serve({
      'GET /takes/t1': () =>
        served({ verdict: { ...heard.verdict, result: 'clean' }, score: { ...({} as object), rung: 2 } }),
    })
    const ladder = {
      key: 'k',
      name: 'Up',
      rung: 3,
      rungs: ['one', 'G to D', 'three'],
      needs: 3,
      capped: false,
      reached: false,
    }
    shown(outboxWith(onDevice({ state: 'sent' })), { ladder } as object)
    expect(await screen.findByText(/You passed rung 2: G to D!/)).toBeTruthy()
    const buttons = screen.getAllByRole('button').map((b) => b.textContent)
    expect(buttons.indexOf('Next step')).toBeLessThan(buttons.indexOf('Again'))
  })

  it.each([
    [{ needs: 2 }, 'Rung 3, G3 alone: 2 clean in a row pass it.'],
    [{ needs: 1 }, 'Rung 3, G3 alone: one more clean passes it.'],
    [{ capped: true }, 'That is enough of this ladder for today.'],
  ])('tells a ladder’s rung: %o', (more, says) => {
    serve({})
    const ladder = {
      rung: 3,
      rungs: ['C4', 'D4', 'G3 alone'],
      needs: 3,
      capped: false,
      ...more,
    } as unknown as Schemas['Ladder']
    shown(outboxWith(onDevice()), { ladder })
    expect(screen.getByText(says)).toBeTruthy()
  })
})

describe('the rest before a step', () => {
  const step = (id: string, ...ago: number[]) =>
    ({
      id,
      score: { kind: 'long-tone-counted', tempo_bpm: 60, load: { sound_s: 8 } },
      takes: ago.map((s, n) => ({ id: `${id}${n}`, played_at: new Date(Date.now() - 1000 * s).toISOString() })),
    }) as unknown as ShownStep

  const held = (of: ShownStep, all: ShownStep[]) => {
    const client = new QueryClient()
    const wrapper = ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    )
    return renderHook(() => useHold(of, all), { wrapper })
  }

  beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }))
  afterEach(() => void vi.useRealTimers())

  it('is asked of the core with everything played today, the latest first, and counted down', async () => {
    vi.mocked(holdBefore).mockResolvedValue({ hold_s: 30, over: false, why: 'Rest as long as you played.' })
    const [now, other] = [step('a', 12), step('b', 4, 300)]
    const { result } = held(now, [now, other])
    await waitFor(() => expect(result.current?.seconds).toBe(30))
    expect(result.current?.why).toBe('Rest as long as you played.')
    const played = vi.mocked(holdBefore).mock.calls[0]?.[1] ?? []
    expect(played.map((p) => Math.round(p.ago_s))).toEqual([4, 12, 300])
    await act(() => vi.advanceTimersByTimeAsync(10_000))
    expect(result.current?.seconds).toBeLessThanOrEqual(20)
    await act(() => vi.advanceTimersByTimeAsync(25_000))
    expect(result.current).toBeUndefined()
  })

  it('stays where the day is over', async () => {
    vi.mocked(holdBefore).mockResolvedValue({ hold_s: 0, over: true, why: 'Enough high notes for today.' })
    const now = step('a', 5)
    const { result } = held(now, [now])
    await waitFor(() => expect(result.current).toMatchObject({ over: true, seconds: 0 }))
  })

  it('is not asked for before the first take', () => {
    vi.mocked(holdBefore).mockClear()
    const now = step('a')
    const { result } = held(now, [now])
    expect(result.current).toBeUndefined()
    expect(holdBefore).not.toHaveBeenCalled()
  })
})
