import type { Moment, Range } from './core'
import type { FromEar, TakeAsked, TakeBegun, ToEar } from './messages'

/** The core works in a thread of its own, so that the page never waits for it; it is started once and kept. */
let thread: Worker | undefined
/** Whoever records now; what comes in after it closed goes nowhere. */
let onLive: (moments: Moment[]) => void = () => {}
/** Questions that are not answered yet, by number. */
const waiting = new Map<number, { resolve: (answer: Answer) => void; reject: (why: Error) => void }>()
/** Numbers of questions, one after the other. */
let asked = 0

/** An answer with the sound that it filled the buffer with, where it did. */
type Answer = { answer: unknown; sound?: Float32Array<ArrayBuffer> }

/**
 * core starts the thread when it is first needed. One that cannot be started fails
 * everybody who waits, and the next question tries again.
 */
function core(): Worker {
  if (thread) return thread
  thread = new Worker(new URL('./listener.worker.ts', import.meta.url), { type: 'module' })
  thread.onmessage = ({ data }: MessageEvent<FromEar>) => receive(data)
  thread.onerror = () => {
    for (const asker of waiting.values()) asker.reject(new Error('The ear could not be started.'))
    waiting.clear()
    thread = undefined
  }
  return thread
}

/** receive passes on what the thread says. */
function receive(message: FromEar) {
  switch (message.kind) {
    case 'live':
      return onLive(message.moments)
    case 'answer':
      return settled(message.id)?.resolve({ ...message, answer: JSON.parse(message.answer) })
    case 'not-taken':
      return settled(message.id)?.reject(new NotTaken())
    case 'trapped':
      return console.warn('the ear was made afresh', message)
  }
  if (message.id === undefined) return console.warn(message.reason)
  settled(message.id)?.reject(new Error(message.reason))
}

/** NotTaken says that a take did not come in to the core as it is asked about: it has to be sent whole. */
export class NotTaken extends Error {}

/** settled takes who waits for an answer off the list. */
function settled(id: number) {
  const asker = waiting.get(id)
  waiting.delete(id)
  return asker
}

/** Listener hears live. */
export type Listener = {
  aim: (midi: number, a4: number) => void
  hear: (samples: Float32Array) => void
  /**
   * take makes a take of what is heard from now on, about so many samples, and returns its
   * number: judging it then asks for what is known already
   */
  take: (about: TakeBegun, length: number) => number
  close: () => void
}

/** Takes are numbered on this page, one after the other. */
let takes = 0

/**
 * listen hears live. What cannot be heard is no reason to stop a take: all of it
 * is listened to again at the end.
 */
export function listen(range: Range, rate: number, onHeard: (moments: Moment[]) => void): Listener {
  const tell = (message: ToEar, transfer: Transferable[] = []) => core().postMessage(message, transfer)
  onLive = onHeard
  tell({ kind: 'open', range, rate })
  return {
    aim: (midi, a4) => tell({ kind: 'aim', midi, a4 }),
    hear: (samples) => tell({ kind: 'hear', samples }),
    take: (about, length) => {
      tell({ kind: 'take', number: ++takes, about, length })
      return takes
    },
    close: () => {
      onLive = () => {}
    },
  }
}

/**
 * put puts a question to the core, with samples, which are given away, or about a take that
 * came in; it rejects with the core's own words, or with NotTaken.
 */
export function put(
  name: string,
  request: unknown,
  about: { samples?: Float32Array; take?: TakeAsked } = {},
): Promise<Answer> {
  const id = ++asked
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject })
    core().postMessage(
      { kind: 'ask', id, name, request, ...about } satisfies ToEar,
      about.samples ? [about.samples.buffer] : [],
    )
  })
}

/** warm starts the core before it is needed. */
export function warm() {
  core()
}
