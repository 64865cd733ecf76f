import type { Schemas } from '../api/client'
import { scheduleClicks } from './metronome'
import { openMicrophone } from './microphone'
import { encodeWAV } from './wav'

type Timeline = Schemas['Timeline']

/** Recording is a take being recorded. */
export type Recording = {
  /** position is where the score is now, in seconds from its first click. */
  position: () => number
  /** level is how loud the latest block was, 0 to 1 of full scale. */
  level: () => number
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

/** record opens the microphone, counts in, and records until the score ends. */
export async function record(timeline: Timeline): Promise<Recording> {
  const microphone = await openMicrophone()
  const { context } = microphone
  const blocks: Float32Array[] = []
  let firstAt: number | undefined
  let loudness = 0
  microphone.onBlock((at, samples) => {
    firstAt ??= at
    blocks.push(samples)
    loudness = peak(samples)
  })
  const firstClick = context.currentTime + beforeFirstClick
  const silence = scheduleClicks(context, firstClick, timeline.clicks)
  const end = firstClick + timeline.total_s + afterTheEnd
  const stopped = new AbortController()
  const close = () => {
    silence()
    microphone.close()
  }
  const done = reached(context, end, stopped.signal)
    .then(() => {
      const heardAt = firstClick + latency(context)
      return {
        file: encodeWAV(blocks, context.sampleRate),
        startMs: Math.round(1000 * (heardAt - (firstAt ?? firstClick))),
      }
    })
    .finally(close)
  return { position: () => context.currentTime - firstClick, level: () => loudness, done, stop: () => stopped.abort() }
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
