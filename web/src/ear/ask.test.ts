// @vitest-environment node
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { judge } from './ask'
import { NotTaken, put } from './listener'

vi.mock('./listener', async (real) => ({ ...(await real<typeof import('./listener')>()), put: vi.fn() }))

const about = { score: {} } as Parameters<typeof judge>[0]
const whole = Float32Array.of(0.5, 0.25)
const heard = { answer: { best: 'clean' } }

describe('a take is judged', () => {
  const samples = vi.fn(() => whole)
  beforeEach(() => void [vi.mocked(put).mockReset(), samples.mockClear()])
  const asked = () => vi.mocked(put).mock.calls.map((call) => call[2])

  it('by its number alone, where the core heard it come in', async () => {
    vi.mocked(put).mockResolvedValue(heard)
    expect(await judge(about, { take: 3, length: 2, rate: 8000, samples })).toBe(heard.answer)
    expect(asked()).toEqual([{ take: { number: 3, samples: 2 } }])
    expect(samples).not.toHaveBeenCalled()
  })

  it('whole, where the core says that it did not', async () => {
    vi.mocked(put).mockRejectedValueOnce(new NotTaken()).mockResolvedValue(heard)
    expect(await judge(about, { take: 3, length: 2, rate: 8000, samples })).toBe(heard.answer)
    expect(asked()).toEqual([{ take: { number: 3, samples: 2 } }, { samples: whole }])
  })

  it('not twice, where the core cannot answer', async () => {
    vi.mocked(put).mockRejectedValue(new Error('this rule is newer'))
    await expect(judge(about, { take: 3, length: 2, rate: 8000, samples })).rejects.toThrow('newer')
    expect(asked()).toHaveLength(1)
  })
})
