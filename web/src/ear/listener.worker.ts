/// <reference lib="webworker" />
import { Keeper } from './keeper'
import type { FromEar, ToEar } from './messages'

// The thread the core works in. Keeper answers; this page only passes on.
const page = self as unknown as DedicatedWorkerGlobalScope
/** Sound is handed over, not copied: half a minute is 6 MB. */
const keeper = new Keeper(
  () => fetch('/ear.wasm'),
  (message: FromEar) =>
    page.postMessage(message, message.kind === 'answer' && message.sound ? [message.sound.buffer] : []),
)

page.onmessage = ({ data }: MessageEvent<ToEar>) => void keeper.take(data)
