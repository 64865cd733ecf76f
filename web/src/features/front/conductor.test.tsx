import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { useConductor } from './conductor'

/** runs are what the click was told, and how it tells the beat. */
let runs: { bpm: number; from: number; to: number; onBeat: (beat: number) => void; stopped: boolean }[]
let drones: (number | 'off')[]

vi.mock('./sounds', () => ({
  Click: class {
    run(bpm: number, from: number, to: number, onBeat: (beat: number) => void) {
      const run = { bpm, from, to, onBeat, stopped: false }
      runs.push(run)
      return {
        stop: () => {
          run.stopped = true
        },
      }
    }
    close() {}
  },
  Drone: class {
    start(hz: number) {
      drones.push(hz)
    }
    stop() {
      drones.push('off')
    }
    close() {}
  },
}))

const step = (key: string, more: object = {}) =>
  ({ key, tempo_bpm: 72, beats: 16, times: 2, drone_hz: 233, ...more }) as unknown as Schemas['FrontStep']

const conduct = (first = step('a')) => {
  const done = vi.fn()
  const hook = renderHook(({ of }) => useConductor(of, done), { initialProps: { of: first } })
  return { ...hook, done }
}
const beatIs = (beat: number) => act(() => runs.at(-1)?.onBeat(beat))

beforeEach(() => {
  runs = []
  drones = []
  vi.useFakeTimers({ toFake: ['performance'] })
})
afterEach(() => void vi.useRealTimers())

describe('conducting a step', () => {
  it('clicks through all of it at the written tempo, then says that it is done', () => {
    const { result, done } = conduct()
    act(() => result.current.start())
    expect(runs).toMatchObject([{ bpm: 72, from: 0, to: 32 }])
    beatIs(7.5)
    expect(result.current.beat).toBe(7.5)
    beatIs(32)
    expect(done).toHaveBeenCalledOnce()
    expect(result.current).toMatchObject({ playing: false, beat: 0 })
  })

  it('pauses and goes on where it was', () => {
    const { result } = conduct()
    act(() => result.current.start())
    beatIs(9)
    act(() => result.current.pause())
    expect(runs[0]?.stopped).toBe(true)
    expect(result.current).toMatchObject({ paused: true, playing: false, beat: 9 })
    act(() => result.current.pause())
    expect(runs[1]).toMatchObject({ from: 9 })
  })

  it('does not begin by pausing', () => {
    const { result } = conduct()
    act(() => result.current.pause())
    expect(runs).toHaveLength(0)
  })

  it('goes on from the same beat at another tempo', () => {
    const { result } = conduct()
    act(() => result.current.start())
    beatIs(12)
    act(() => result.current.setTempo(90))
    expect(runs.map((r) => [r.bpm, r.from])).toEqual([
      [72, 0],
      [90, 12],
    ])
    expect(runs[0]?.stopped).toBe(true)
  })

  it('keeps to tempi a room can follow', () => {
    const { result } = conduct()
    act(() => result.current.setTempo(400))
    expect(result.current.tempo).toBe(160)
    act(() => result.current.setTempo(3))
    expect(result.current.tempo).toBe(40)
  })

  it('takes the tempo from taps, and begins anew after a silence', () => {
    const { result } = conduct()
    const tapAfter = (ms: number) =>
      act(() => {
        vi.advanceTimersByTime(ms)
        result.current.tap()
      })
    tapAfter(0)
    expect(result.current.tempo).toBe(72) // one tap is no tempo
    for (let n = 0; n < 4; n++) tapAfter(500)
    expect(result.current.tempo).toBeCloseTo(120, 0)
    tapAfter(5_000)
    expect(result.current.tempo).toBeCloseTo(120, 0)
    tapAfter(1_000)
    expect(result.current.tempo).toBeCloseTo(60, 0)
  })

  it('begins every step stopped, at its own tempo', () => {
    const { result, rerender } = conduct()
    act(() => result.current.start())
    beatIs(5)
    rerender({ of: step('b', { tempo_bpm: 60 }) })
    expect(result.current).toMatchObject({ tempo: 60, playing: false, beat: 0 })
    expect(runs[0]?.stopped).toBe(true)
  })

  it('stops to the beginning', () => {
    const { result } = conduct()
    act(() => result.current.start())
    beatIs(5)
    act(() => result.current.stop())
    expect(result.current).toMatchObject({ playing: false, paused: false, beat: 0 })
  })

  it('sounds a drone where the step has one', () => {
    const { result, rerender } = conduct()
    act(() => result.current.toggleDrone())
    rerender({ of: step('b', { drone_hz: 349 }) })
    rerender({ of: step('c', { drone_hz: 0 }) })
    expect(drones).toEqual([233, 'off', 349, 'off'])
  })
})
