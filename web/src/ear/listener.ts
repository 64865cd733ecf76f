import type { Heard, Range } from './core'
import type { Asked, Said } from './listener.worker'

/** Listener is the ear in a thread of its own, so that the page never waits for it. */
export type Listener = {
  aim: (midi: number, a4: number) => void
  hear: (samples: Float32Array) => void
  close: () => void
}

/**
 * listen hears live. What cannot be heard is no reason to stop a take: the
 * server listens again to all of it.
 */
export function listen(range: Range, rate: number, onHeard: (heard: Heard[]) => void): Listener {
  const worker = new Worker(new URL('./listener.worker.ts', import.meta.url), { type: 'module' })
  const ask = (asked: Asked, transfer: Transferable[] = []) => worker.postMessage(asked, transfer)
  worker.onmessage = ({ data }: MessageEvent<Said>) => {
    if (data.kind === 'live') onHeard(data.heard)
    if (data.kind === 'failed') console.warn(data.reason)
  }
  ask({ kind: 'open', range, rate })
  return {
    aim: (midi, a4) => ask({ kind: 'aim', midi, a4 }),
    hear: (samples) => ask({ kind: 'hear', samples: samples.slice() }),
    close: () => worker.terminate(),
  }
}
