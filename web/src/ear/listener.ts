import type { Heard, Question, Range } from './core'
import type { Asked, Said } from './listener.worker'

/** The core works in a thread of its own, so that the page never waits for it; it is started once and kept. */
let thread: Worker | undefined
let onLive: (heard: Heard[]) => void = () => {}
const waiting = new Map<number, { resolve: (said: Answer) => void; reject: (why: Error) => void }>()
let asked = 0

type Answer = { answer: unknown; sound?: Float32Array }

function core(): Worker {
  if (thread) return thread
  thread = new Worker(new URL('./listener.worker.ts', import.meta.url), { type: 'module' })
  thread.onmessage = ({ data }: MessageEvent<Said>) => {
    if (data.kind === 'live') return onLive(data.heard)
    if (data.kind === 'answer') return take(data.id)?.resolve(data)
    if (data.id === undefined) return console.warn(data.reason)
    take(data.id)?.reject(new Error(data.reason))
  }
  thread.onerror = () => {
    for (const asker of waiting.values()) asker.reject(new Error('The ear could not be started.'))
    waiting.clear()
    thread = undefined
  }
  return thread
}

function take(id: number) {
  const asker = waiting.get(id)
  waiting.delete(id)
  return asker
}

/** Listener hears live. */
export type Listener = {
  aim: (midi: number, a4: number) => void
  hear: (samples: Float32Array) => void
  close: () => void
}

/**
 * listen hears live. What cannot be heard is no reason to stop a take: all of it
 * is listened to again at the end.
 */
export function listen(range: Range, rate: number, onHeard: (heard: Heard[]) => void): Listener {
  const tell = (said: Asked, transfer: Transferable[] = []) => core().postMessage(said, transfer)
  onLive = onHeard
  tell({ kind: 'open', range, rate })
  return {
    aim: (midi, a4) => tell({ kind: 'aim', midi, a4 }),
    hear: (samples) => tell({ kind: 'hear', samples: samples.slice() }),
    close: () => {
      onLive = () => {}
    },
  }
}

/** ask puts a question to the core; it rejects with the core's own words. */
export function ask(which: Question, about: unknown, samples?: Float32Array): Promise<Answer> {
  const id = ++asked
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject })
    core().postMessage(
      { kind: 'ask', id, which, about, ...(samples && { samples }) } satisfies Asked,
      samples ? [samples.buffer] : [],
    )
  })
}

/** warm starts the core before it is needed. */
export function warm() {
  core()
}
