// @vitest-environment node
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { listen } from './listener'
import { scheduleSounds } from './metronome'
import type { Source } from './microphone'
import { InterruptedError, record } from './recorder'

vi.mock('./listener', () => ({ listen: vi.fn() }))

const rate = 8000

/** a Param remembers how it was told to move. */
class Param {
  value = 0
  moves: [string, number, number][] = []
  setValueAtTime = (v: number, at: number) => void this.moves.push(['set', v, at])
  linearRampToValueAtTime = (v: number, at: number) => void this.moves.push(['line', v, at])
  exponentialRampToValueAtTime = (v: number, at: number) => void this.moves.push(['fall', v, at])
}

/** Context is as much of the browser's sound as is asked for; its clock is the test's. */
class Context {
  currentTime = 10
  sampleRate = rate
  outputLatency = 0
  destination = {}
  tones: { hertz: number; from: number; to: number; shape: Param }[] = []
  disconnected = false
  createGain() {
    const gain = new Param()
    return {
      gain,
      context: this,
      connect: (to: unknown) => to,
      disconnect: () => {
        this.disconnected = true
      },
    }
  }
  createOscillator() {
    const made = { hertz: 0, from: 0, to: 0, shape: new Param() }
    this.tones.push(made)
    const frequency = {
      set value(v: number) {
        made.hertz = v
      },
    }
    return {
      type: '',
      frequency,
      connect: (to: { gain: Param; connect: (o: unknown) => unknown }) => {
        made.shape = to.gain
        return to
      },
      start: (at: number) => {
        made.from = at
      },
      stop: (at: number) => {
        made.to = at
      },
    }
  }
}

const timeline = {
  total_s: 3,
  clicks: [
    { at_s: 0, beat: 1, audible: true, accent: true },
    { at_s: 1, beat: 2, audible: true, accent: false },
    { at_s: 2, beat: 1, audible: false, accent: true },
  ],
  cues: [
    { from_s: 0, to_s: 2, segment: 0 },
    { from_s: 2, to_s: 3, segment: 1 },
  ],
  tones: [{ at_s: 0.5, length_s: 1, pitch_hz: 233 }],
  drone_hz: 116.5,
}
const counted = {
  timeline,
  score: { a4_hz: 442, segments: [{ phase: 'ready' }, { phase: 'play', target_midi: 58 }] },
  ear: { lowest_hz: 100, highest_hz: 1000 },
} as unknown as Parameters<typeof record>[0]

let context: Context
let ear: {
  aim: ReturnType<typeof vi.fn>
  hear: ReturnType<typeof vi.fn>
  take: ReturnType<typeof vi.fn>
  close: ReturnType<typeof vi.fn>
  tell: (heard: object[]) => void
}
let microphone: {
  hear: (at: number, samples: Float32Array) => void
  lose: (why: string) => void
  closed: boolean
  begun: number | undefined
}

function source(): Source {
  microphone = { hear: () => {}, lose: () => {}, closed: false, begun: undefined }
  return {
    context,
    label: 'lid',
    through: 'ab12',
    lost: new Promise((resolve) => {
      microphone.lose = resolve
    }),
    onBlock: (told: typeof microphone.hear) => {
      microphone.hear = told
    },
    begin: (at: number) => {
      microphone.begun = at
    },
    close: () => {
      microphone.closed = true
    },
  } as unknown as Source
}

beforeEach(() => {
  vi.useFakeTimers()
  context = new Context()
  vi.mocked(listen).mockImplementation((_, __, tell) => {
    ear = { aim: vi.fn(), hear: vi.fn(), take: vi.fn(() => 7), close: vi.fn(), tell: tell as typeof ear.tell }
    return ear as unknown as ReturnType<typeof listen>
  })
})

afterEach(() => {
  vi.useRealTimers()
})

/** pass lets the clock go on and gives the recorder a moment to look at it. */
const pass = async (seconds: number) => {
  context.currentTime += seconds
  await vi.advanceTimersByTimeAsync(150)
}

describe('a recording', () => {
  it('is the whole step, with the place of its first click', async () => {
    const take = record(counted, source(), { click: false, drone: false })
    expect(microphone.begun).toBeCloseTo(10.6)
    expect(take.position()).toBeCloseTo(-0.6)
    microphone.hear(10.1, new Float32Array(rate).fill(0.25)) // from half a second before the first click
    microphone.hear(11.1, new Float32Array(rate).fill(-0.5))
    expect(take.level()).toBeCloseTo(0.5)
    await pass(4)
    const done = await take.done
    expect(done.startMs).toBe(500)
    expect(done.sound).toMatchObject({ take: 7, length: 2 * rate, rate })
    expect(done.sound.samples()).toHaveLength(2 * rate)
    expect(ear.take.mock.calls).toEqual([[{ score: counted.score, start_s: 0.5, rate }, 3.8 * rate]])
    expect(done.file().size).toBe(44 + 2 * 2 * rate)
    expect(microphone.closed).toBe(true)
    expect(ear.close).toHaveBeenCalled()
    expect(context.disconnected).toBe(true)
  })

  it('points the ear at the note that is due, once each', () => {
    record(counted, source(), { click: false, drone: false }).done.catch(() => {})
    for (const at of [10.1, 11, 12.5, 12.7, 13]) microphone.hear(at, new Float32Array(100))
    expect(ear.aim.mock.calls).toEqual([
      [0, 442],
      [58, 442],
    ])
    expect(ear.hear).toHaveBeenCalledTimes(5)
  })

  it('knows what was heard, and how far the ear lags', () => {
    const take = record(counted, source(), { click: false, drone: false })
    take.done.catch(() => {})
    microphone.hear(10.2, new Float32Array(100))
    context.currentTime = 11.2
    ear.tell(Array.from({ length: 90 }, () => ({ pitch: 233 })))
    expect(take.heard).toHaveLength(90)
    expect(take.heardFrom()).toBeCloseTo(-0.4)
    expect(take.behind()).toBeCloseTo(0.1)
  })

  it('counts what the loudspeaker is late by to the click, not to the player', () => {
    context.outputLatency = 0.08
    const take = record(counted, source(), { click: false, drone: false })
    take.done.catch(() => {})
    microphone.hear(10.1, new Float32Array(100))
    expect(take.heardFrom()).toBeCloseTo(-0.58)
    context.outputLatency = 7 // no loudspeaker: a browser that does not know
    expect(take.heardFrom()).toBeCloseTo(-0.5)
  })

  it('ends when the player stops it', async () => {
    const take = record(counted, source(), { click: false, drone: false })
    microphone.hear(10.1, new Float32Array(rate))
    take.stop()
    const ended = expect(take.done).rejects.not.toBeInstanceOf(InterruptedError)
    await pass(0)
    await ended
    expect(microphone.closed).toBe(true)
  })

  it('keeps what there is when the microphone is lost', async () => {
    const take = record(counted, source(), { click: false, drone: false })
    microphone.hear(10.1, new Float32Array(rate))
    microphone.lose('A call took the microphone.')
    const ended = take.done.catch((e) => e)
    await pass(0)
    const error = await ended
    expect(error).toBeInstanceOf(InterruptedError)
    expect(error.message).toBe('A call took the microphone.')
    expect(error.partial.sound).toMatchObject({ length: rate, rate })
    expect(error.partial.startMs).toBe(500)
  })
})

describe('the sounds under a take', () => {
  const schedule = (wanted: { click: boolean; drone: boolean }) => {
    const silence = scheduleSounds(context as unknown as AudioContext, 20, timeline as never, wanted)
    return { silence, tones: context.tones }
  }

  it('are the count-in and the notes to listen to, and nothing that would be recorded over a note', () => {
    const { tones } = schedule({ click: false, drone: false })
    expect(tones.map((t) => [t.hertz, t.from])).toEqual([
      [1800, 20],
      [1400, 21],
      [233, 20.5],
    ])
  })

  it('are a click on every beat and a drone for who asks, with headphones', () => {
    const { tones } = schedule({ click: true, drone: true })
    expect(tones).toHaveLength(5)
    expect(tones.at(-1)).toMatchObject({ hertz: 116.5, from: 20, to: 23 })
  })

  it('are never loud', () => {
    const { tones } = schedule({ click: true, drone: true })
    for (const t of tones) for (const [, v] of t.shape.moves) expect(v).toBeLessThanOrEqual(0.25)
  })

  it('are silent at once when they have to be', () => {
    schedule({ click: true, drone: true }).silence()
    expect(context.disconnected).toBe(true)
  })
})
