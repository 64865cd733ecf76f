import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { work } from '../../ear/ask'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'
import { useWorked } from './useWorked'

vi.mock('../../ear/ask', () => ({ work: vi.fn() }))

const practice = { setting: {} } as Practice
const standingOn = (rung: number, written = 1) =>
  ({
    id: 's1',
    version: 1,
    step: {},
    takes: [],
    ladder: { key: 'clarinet-break', rung },
    score: { rung: written },
  }) as unknown as ShownStep

function shown(step: ShownStep) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const around = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  )
  return renderHook(({ step }) => useWorked(practice, step, 0), { wrapper: around, initialProps: { step } })
}

describe('a step worked out on the device', () => {
  it('is not played before the rung one came to is written out', async () => {
    let write = (_: unknown) => {}
    vi.mocked(work).mockImplementation(() => new Promise((resolve) => (write = resolve as typeof write)))
    const { result, rerender } = shown(standingOn(1))
    expect(result.current.turning).toBe(false)
    rerender({ step: standingOn(2) })
    expect(result.current.turning).toBe(true)
    await waitFor(() => expect(work).toHaveBeenCalled())
    write({ score: { rung: 2 } })
    await waitFor(() => expect(result.current.turning).toBe(false))
    expect(result.current.whole.score.rung).toBe(2)

    rerender({ step: standingOn(3) }) // what was written before stands there meanwhile
    expect(result.current.whole.score.rung).toBe(2)
    expect(result.current.turning).toBe(true)
  })

  it('is played as it stands where the core cannot write it out', async () => {
    vi.mocked(work).mockRejectedValue(new Error('no core'))
    const { result } = shown(standingOn(2))
    await waitFor(() => expect(result.current.turning).toBe(false))
    expect(result.current.whole.score.rung).toBe(1)
  })
})
