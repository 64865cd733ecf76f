/// <reference lib="webworker" />
import { Ear, type Heard, type Question, type Range } from './core'

/** Asked is what the page asks of the core. */
export type Asked =
  | { kind: 'open'; range: Range; rate: number }
  | { kind: 'aim'; midi: number; a4: number }
  | { kind: 'hear'; samples: Float32Array }
  | { kind: 'ask'; id: number; which: Question; about: unknown; samples?: Float32Array }

/** Said is what it answers; sound is what a question filled the room with. */
export type Said =
  | { kind: 'live'; heard: Heard[] }
  | { kind: 'answer'; id: number; answer: unknown; sound?: Float32Array }
  | { kind: 'failed'; id?: number; reason: string }

const page = self as unknown as DedicatedWorkerGlobalScope
const ear = Ear.load(fetch('/ear.wasm'))

page.onmessage = async ({ data }: MessageEvent<Asked>) => {
  try {
    answer(await ear, data)
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    say({ kind: 'failed', reason, ...(data.kind === 'ask' && { id: data.id }) })
  }
}

function answer(core: Ear, asked: Asked) {
  switch (asked.kind) {
    case 'open':
      return core.open(asked.range, asked.rate)
    case 'aim':
      return core.aim(asked.midi, asked.a4)
    case 'hear':
      return say({ kind: 'live', heard: core.hear(asked.samples) })
  }
  const said = core.ask(asked.which, asked.about, asked.samples)
  if (asked.which !== 'perform' && asked.which !== 'reference')
    return say({ kind: 'answer', id: asked.id, answer: said })
  const sound = core.sound(said as number)
  page.postMessage({ kind: 'answer', id: asked.id, answer: said, sound } satisfies Said, [sound.buffer])
}

function say(said: Said) {
  page.postMessage(said)
}
