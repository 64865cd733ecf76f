// @vitest-environment node
import { expect, it, vi } from 'vitest'
import { Ear } from './core'
import { Keeper } from './keeper'
import type { TakeBegun } from './messages'

// Only when the keeper asks is looked at here, on devices of any speed; core.test.ts has what
// the core in the browser answers.
const rate = 48_000

it('looks ahead for the last time early enough that the end does not wait for it', async () => {
  const seconds = 6
  const begun = { score: {} as TakeBegun['score'], start_s: 0, rate }
  const lastLook = async (takes: number) => {
    let now = 0
    let came = 0
    let last = 0
    const ear = {
      ask: () => ({}),
      hear: () => [],
      sweep: vi.fn(),
      ahead: () => {
        now += 1000 * takes
        last = came
      },
    }
    vi.spyOn(performance, 'now').mockImplementation(() => now)
    vi.spyOn(Ear, 'load').mockResolvedValue(ear as unknown as Ear)
    const keeper = new Keeper(
      async () => new Response(),
      () => {},
    )
    await keeper.take({ kind: 'take', number: 1, about: begun, length: seconds * rate })
    for (; came < seconds; came += 0.05) {
      await keeper.take({ kind: 'hear', samples: new Float32Array(rate / 20) })
    }
    vi.restoreAllMocks()
    expect(ear.sweep).toHaveBeenCalledTimes(1)
    return seconds - last
  }
  const quick = await lastLook(0.02)
  expect(quick).toBeGreaterThanOrEqual(0.4)
  expect(quick).toBeLessThan(0.6)
  expect(await lastLook(0.3)).toBeGreaterThanOrEqual(4 * 0.3) // a slow device
})
