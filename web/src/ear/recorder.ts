import type { Answer, TakeHeard } from './ask'
import type { Moment } from './core'
import { listen } from './listener'
import { scheduleSounds, type Wanted } from './metronome'
import type { Source } from './microphone'
import { Tape } from './tape'

/**
 * What a recording needs of a step: its notes, its times, and between which pitches to
 * listen.
 */
type Course = Pick<Answer<'work'>, 'score' | 'timeline' | 'ear'>

/** Recording is a take being recorded. */
export type Recording = {
  /** position is where the score is now, in seconds from its first click. */
  position: () => number
  /** level is how loud the latest block was, 0 to 1 of full scale. */
  level: () => number
  /** heard is what the ear has heard so far; it grows. */
  heard: readonly Moment[]
  /** heardFrom is where the first of heard lies, in seconds from the first click. */
  heardFrom: () => number
  /** behind is by how many seconds the ear lags the sound. */
  behind: () => number
  /** done resolves at the end of the score; it rejects when stopped or interrupted. */
  done: Promise<Recorded>
  stop: () => void
}

/**
 * Recorded is a finished take: its sound, its file, and where the first click lies in it. The
 * file is made when it is asked for: the core is to be asked for its word first.
 */
export type Recorded = {
  file: () => Blob
  sound: TakeHeard
  startMs: number
  /** through is the microphone's opaque name */
  through: string
}

/** StoppedError says that the player stopped the take. */
export class StoppedError extends Error {}

/** InterruptedError says what ended a take early; what was recorded until then is not lost. */
export class InterruptedError extends Error {
  readonly partial: Recorded
  constructor(why: string, partial: Recorded) {
    super(why)
    this.partial = partial
  }
}

const beforeFirstClick = 0.6 // seconds, for the microphone to settle and the room to be heard
/** Seconds recorded behind the last beat: a release has a tail. */
const afterTheEnd = 0.3
/** Seconds of tape more than the score is long: for what comes before its first click, and what comes late. */
const tapeAhead = 2
const frameSeconds = 0.01 // from one moment heard to the next

/** record counts in and records until the score ends; the source is closed with it. */
export function record(course: Course, source: Source, wanted: Wanted): Recording {
  const { timeline } = course
  const { context } = source
  let firstAt: number | undefined
  const heard: Moment[] = []
  let behind = 0
  const ear = listen({ lowest: course.ear.lowest_hz, highest: course.ear.highest_hz }, context.sampleRate, (more) => {
    heard.push(...more)
    behind = context.currentTime - (firstAt ?? context.currentTime) - heard.length * frameSeconds
  })
  const aim = aimer(course, ear.aim)
  const firstClick = context.currentTime + beforeFirstClick
  const tape = new Tape(Math.ceil((tapeAhead + timeline.total_s + afterTheEnd) * context.sampleRate))
  let loudness = 0
  let take = 0 // none: nothing came in
  source.onBlock((at, samples) => {
    if (firstAt === undefined) {
      firstAt = at
      const about = { score: course.score, start_s: -heardFrom(), rate: context.sampleRate }
      take = ear.take(about, Math.round((about.start_s + timeline.total_s + afterTheEnd) * about.rate))
    }
    loudness = peak(samples)
    aim(at - firstClick)
    ear.hear(tape.add(samples))
  })
  source.begin?.(firstClick)
  const silence = scheduleSounds(context, firstClick, timeline, wanted)
  const heardFrom = () => (firstAt ?? firstClick) - firstClick - latency(context)
  const recorded = (): Recorded => {
    const { length } = tape
    return {
      file: () => tape.file(context.sampleRate),
      sound: { take, length, rate: context.sampleRate, samples: () => tape.samples(length) },
      startMs: Math.round(-1000 * heardFrom()),
      through: source.through,
    }
  }
  const stopped = new AbortController()
  let lostBy = ''
  void source.lost.then((why) => {
    lostBy = why
    stopped.abort()
  })
  const done = reached(context, firstClick + timeline.total_s + afterTheEnd, stopped.signal)
    .then(() => {
      performance.mark('take-ended') // benches/wait reads how long the word takes from here
      return recorded()
    })
    .catch((error) => {
      throw lostBy ? new InterruptedError(lostBy, recorded()) : error
    })
    .finally(() => setTimeout(close)) // the core is asked for its word first
  const close = () => {
    silence()
    ear.close()
    source.close()
  }
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
function aimer(course: Course, aim: (midi: number, a4: number) => void): (at: number) => void {
  let last = -1
  return (at) => {
    const cue = course.timeline.cues.find((c) => at < c.to_s)
    const midi = (cue && course.score.segments[cue.segment]?.target_midi) ?? 0
    if (midi === last) return
    last = midi
    aim(midi, course.score.a4_hz)
  }
}

/** latency is how much later than scheduled a click leaves the loudspeaker. */
function latency(context: AudioContext): number {
  const out = context.outputLatency
  return Number.isFinite(out) && out < 0.5 ? out : 0
}

/** peak is how loud a block is, 0 to 1 of full scale. */
function peak(samples: Float32Array): number {
  let top = 0
  for (const x of samples) top = Math.max(top, Math.abs(x))
  return top
}

/** Milliseconds between looks at the clock: often enough for who stops a take, and no later than the end. */
const longestLook = 40
const shortestLook = 4

/** reached resolves when the context's clock passes a moment. */
function reached(context: AudioContext, moment: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const look = () => {
      if (signal.aborted) reject(new StoppedError())
      else if (context.currentTime >= moment) resolve()
      else setTimeout(look, Math.min(longestLook, Math.max(shortestLook, 1000 * (moment - context.currentTime))))
    }
    look()
  })
}
