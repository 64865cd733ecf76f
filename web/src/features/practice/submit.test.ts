import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import type { Outbox } from '../../device/outbox'
import { climb, judge } from '../../ear/ask'
import { verdict } from '../../testing/things'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'
import { judgeOnDevice, newTake, submit } from './submit'

vi.mock('../../ear/ask', () => ({ judge: vi.fn(), climb: vi.fn() }))

const practice = {
  day: '2026-11-26',
  tips: { held: 'Longer.' },
  setting: { conventions: { air: 'speed' } },
} as unknown as Practice

const step = (more: object = {}) =>
  ({
    id: 's1',
    version: 4,
    score: { tempo_bpm: 60 },
    recent_tips: ['flat'],
    takes: [],
    ...more,
  }) as unknown as ShownStep

const file = new Blob(['RIFF'])
const sound = { samples: new Float32Array(96_000), rate: 48_000 }
const word = (more: object = {}) => ({ verdict: { ...verdict('nearly'), ...more } })

beforeEach(() => {
  vi.mocked(judge)
    .mockReset()
    .mockResolvedValue(word() as never)
  vi.mocked(climb)
    .mockReset()
    .mockResolvedValue({ rung: 3 } as never)
  vi.spyOn(console, 'warn').mockImplementation(() => {})
})

describe('handing in', () => {
  const kept = async (of: ShownStep, source: 'microphone' | 'file' = 'microphone', hasSound = true) => {
    const keepTake = vi.fn()
    const take = newTake(() => file, source, 600, hasSound ? sound : undefined)
    await submit({ keepTake } as unknown as Outbox, practice, of, take)
    return { take, call: keepTake.mock.calls[0] as unknown[] }
  }

  it('says which turn it was where fingers take turns', async () => {
    const second = step({ score: { tempo_bpm: 60, alternates: true }, takes: [{}] })
    expect((await kept(second)).call[2]).toMatchObject({ repeat: 1 })
    const first = step({ score: { tempo_bpm: 60, alternates: true } })
    expect((await kept(first)).call[2]).not.toHaveProperty('repeat')
    const same = step({ takes: [{}] })
    expect((await kept(same)).call[2]).not.toHaveProperty('repeat')
  })

  it('keeps the take with how things stood when it was played', async () => {
    const ladder = step({ score: { tempo_bpm: 54, rung: 7 }, tempi: { own_bpm: 60 }, best_s: 11.26 })
    const { take, call } = await kept(ladder)
    expect(call).toEqual([
      take.id,
      file,
      {
        step: 's1',
        version: 4,
        source: 'microphone',
        startMs: 600,
        day: '2026-11-26',
        tempo: 54,
        rung: 7,
        bestMs: 11260,
      },
      false,
    ])
  })

  it('says nothing of what is as the step has it', async () => {
    const { call } = await kept(step({ tempi: { own_bpm: 60 } }))
    expect(call[2]).toEqual({ step: 's1', version: 4, source: 'microphone', startMs: 600, day: '2026-11-26' })
  })

  it('tells that a chosen file is not judged here', async () => {
    const { call } = await kept(step(), 'file', false)
    expect(call[3]).toBe(true)
  })

  it('gives every take a number of its own', () => {
    expect(newTake(() => file, 'file', 0).id).not.toBe(newTake(() => file, 'file', 0).id)
  })
})

describe('judging here', () => {
  const judged = (of: ShownStep, hasSound = true) =>
    judgeOnDevice(
      practice,
      of,
      newTake(() => file, 'microphone', 600, hasSound ? sound : undefined),
    )

  it('asks the core with the class’s own words and schools, and what was said of late', async () => {
    expect(await judged(step())).toEqual({ heard: word() })
    expect(judge).toHaveBeenCalledWith(
      {
        score: { tempo_bpm: 60 },
        start_s: 0.6,
        free_start: false,
        recent_tips: ['flat'],
        tips: { held: 'Longer.' },
        air: 'speed',
      },
      sound,
    )
    expect(climb).not.toHaveBeenCalled()
  })

  it('leads a ladder on by the verdict', async () => {
    const ladder = { key: 'clarinet-break', rung: 2 } as Schemas['Ladder']
    const got = await judged(step({ ladder, result: 'nearly', score: { tempo_bpm: 60, rung: 2 } }))
    expect(got.ladder).toEqual({ rung: 3 })
    expect(judge).toHaveBeenCalledWith(expect.objectContaining({ best: 'nearly' }), sound)
    const { setting, day } = practice
    expect(climb).toHaveBeenCalledWith({ setting, ladder, day, rung: 2, verdict: word().verdict, seconds: 2 })
  })

  it('leaves it to the server where the core cannot be had', async () => {
    vi.mocked(judge).mockRejectedValue(new Error('no memory for the core'))
    expect(await judged(step())).toEqual({})
  })

  it('leaves a file to the server', async () => {
    expect(await judged(step(), false)).toEqual({})
    expect(judge).not.toHaveBeenCalled()
  })
})
