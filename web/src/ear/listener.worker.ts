/// <reference lib="webworker" />
import { Ear, type Heard, type Range } from './core'

/** Asked is what the page asks of the listener. */
export type Asked =
  | { kind: 'open'; range: Range; rate: number }
  | { kind: 'aim'; midi: number; a4: number }
  | { kind: 'hear'; samples: Float32Array }
  | { kind: 'track'; samples: Float32Array; range: Range; rate: number }

/** Said is what it answers. */
export type Said = { kind: 'live' | 'tracked'; heard: Heard[] } | { kind: 'failed'; reason: string }

const page = self as unknown as DedicatedWorkerGlobalScope
const ear = Ear.load(fetch('/ear.wasm'))

page.onmessage = async ({ data }: MessageEvent<Asked>) => {
  try {
    const e = await ear
    if (data.kind === 'open') e.open(data.range, data.rate)
    else if (data.kind === 'aim') e.aim(data.midi, data.a4)
    else if (data.kind === 'hear') say({ kind: 'live', heard: e.hear(data.samples) })
    else say({ kind: 'tracked', heard: e.track(data.samples, data.range, data.rate) })
  } catch (error) {
    say({ kind: 'failed', reason: error instanceof Error ? error.message : String(error) })
  }
}

function say(said: Said) {
  page.postMessage(said)
}
