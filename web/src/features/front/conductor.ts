import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { Click, Drone } from './sounds'

/** A step of the day as the room plays it. */
type Step = Schemas['FrontStep']

/** The tempi a room can follow, in beats a minute (common practice, no published source). */
const slowest = 40
/** Faster than this nobody breathes between two notes. */
const fastest = 160
const tapsForget = 2_500 // milliseconds without a tap begin the tempo anew

/**
 * useConductor counts the room through a step by the sound's own clock: a click
 * on every beat, sounded ahead of time, and the beat that is on now.
 */
export function useConductor(step: Step | undefined, onDone: () => void) {
  const written = step?.tempo_bpm ?? 60
  const [tempo, setTempoTo] = useState(written)
  const [beat, setBeat] = useState(0)
  const [playing, setPlaying] = useState(false)
  const [paused, setPaused] = useState(false)
  const [drone, setDrone] = useState(false)
  const click = useRef<Click>(undefined)
  const droneSound = useRef<Drone>(undefined)
  const taps = useRef<number[]>([])
  const beatNow = useRef(beat) // where playing goes on from
  beatNow.current = beat
  const done = useRef(onDone)
  done.current = onDone
  const total = step ? step.beats * step.times : 0
  // A new step begins at its own tempo, stopped.
  const key = step?.key
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key is the step
  useEffect(() => {
    setTempoTo(written)
    setBeat(0)
    setPlaying(false)
    setPaused(false)
  }, [key])
  useEffect(() => {
    if (!playing) return
    click.current ??= new Click()
    const run = click.current.run(tempo, beatNow.current, total, (now) => {
      if (now < total) return setBeat(now)
      setPlaying(false)
      setBeat(0)
      done.current()
    })
    return run.stop
  }, [playing, tempo, total])
  const hz = step?.drone_hz ?? 0
  useEffect(() => {
    if (!drone || hz === 0) return
    droneSound.current ??= new Drone()
    droneSound.current.start(hz)
    return () => droneSound.current?.stop()
  }, [drone, hz])
  useEffect(
    () => () => {
      click.current?.close()
      droneSound.current?.close()
    },
    [],
  )
  const setTempo = (bpm: number) => setTempoTo(Math.min(fastest, Math.max(slowest, bpm)))
  return {
    tempo,
    beat,
    playing,
    paused,
    drone,
    setTempo,
    start: () => {
      setPaused(false)
      setPlaying(true)
    },
    pause: () => {
      if (!playing && !paused) return
      setPaused(playing)
      setPlaying(!playing)
    },
    stop: () => {
      setPlaying(false)
      setPaused(false)
      setBeat(0)
    },
    tap: () => {
      const now = performance.now()
      const recent = taps.current.filter((t) => now - t < tapsForget).slice(-4)
      taps.current = [...recent, now]
      const first = recent[0]
      if (first !== undefined) setTempo((60_000 * recent.length) / (now - first))
    },
    toggleDrone: () => setDrone(!drone),
  }
}
