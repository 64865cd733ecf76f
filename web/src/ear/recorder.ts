import type { Schemas } from '../api/client'
import type { Heard } from './core'
import { listen } from './listener'
import { scheduleClicks } from './metronome'
import { openMicrophone } from './microphone'
import { encodeWAV } from './wav'

type Step = Schemas['PracticeStep']

/** Recording is a take being recorded. */
export type Recording = {
  /** position is where the score is now, in seconds from its first click. */
  position: () => number
  /** level is how loud the latest block was, 0 to 1 of full scale. */
  level: () => number
  /** heard is what the ear has heard so far; it grows. */
  heard: readonly Heard[]
  /** heardFrom is where the first of heard lies, in seconds from the first click. */
  heardFrom: () => number
  /** behind is by how many seconds the ear lags the sound. */
  behind: () => number
  /** done resolves at the end of the score; it rejects when stopped. */
  done: Promise<Recorded>
  stop: () => void
}

/** Recorded is a finished take: its file, and where the first click lies in it. */
export type Recorded = { file: Blob; startMs: number }

/** StoppedError says that the player stopped the take. */
export class StoppedError extends Error {}

const beforeFirstClick = 0.6 // seconds, for the microphone to settle and the room to be heard
const afterTheEnd = 0.3
const frameSeconds = 0.01 // from one moment heard to the next

/** record opens the microphone, counts in, and records until the score ends. */
export async function record(step: Step): Promise<Recording> {
  const { timeline } = step
  const microphone = await openMicrophone()
  const { context } = microphone
  let firstAt: number | undefined
  const blocks: Float32Array[] = []
  const heard: Heard[] = []
  let behind = 0
  const ear = listen({ lowest: step.ear.lowest_hz, highest: step.ear.highest_hz }, context.sampleRate, (more) => {
    heard.push(...more)
    behind = context.currentTime - (firstAt ?? context.currentTime) - heard.length * frameSeconds
  })
  const aim = aimer(step, ear.aim)
  const firstClick = context.currentTime + beforeFirstClick
  let loudness = 0
  microphone.onBlock((at, samples) => {
    firstAt ??= at
    blocks.push(samples)
    loudness = peak(samples)
    aim(at - firstClick)
    ear.hear(samples)
  })
  const silence = scheduleClicks(context, firstClick, timeline.clicks)
  const end = firstClick + timeline.total_s + afterTheEnd
  const stopped = new AbortController()
  const close = () => {
    silence()
    ear.close()
    microphone.close()
  }
  const heardFrom = () => (firstAt ?? firstClick) - firstClick - latency(context)
  const done = reached(context, end, stopped.signal)
    .then(() => ({ file: encodeWAV(blocks, context.sampleRate), startMs: Math.round(-1000 * heardFrom()) }))
    .finally(close)
  return {
    position: () => context.currentTime - firstClick,
    level: () => loudness,
    heard,
    heardFrom,
    behind: () => behind,
    done,
    stop: () => stopped.abort(),
  }
}

/** aimer points the ear at the note that is due, whenever that changes. */
function aimer(step: Step, aim: (midi: number, a4: number) => void): (at: number) => void {
  let last = -1
  return (at) => {
    const cue = step.timeline.cues.find((c) => at < c.to_s)
    const midi = (cue && step.score.segments[cue.segment]?.target_midi) ?? 0
    if (midi === last) return
    last = midi
    aim(midi, step.score.a4_hz)
  }
}

/** latency is how much later than scheduled a click leaves the loudspeaker. */
function latency(context: AudioContext): number {
  const out = context.outputLatency
  return Number.isFinite(out) && out < 0.5 ? out : 0
}

function peak(samples: Float32Array): number {
  let top = 0
  for (const x of samples) top = Math.max(top, Math.abs(x))
  return top
}

/** reached resolves when the context's clock passes a moment. */
function reached(context: AudioContext, moment: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const look = () => {
      if (signal.aborted) reject(new StoppedError('The take was stopped.'))
      else if (context.currentTime >= moment) resolve()
      else setTimeout(look, 40)
    }
    look()
  })
}
