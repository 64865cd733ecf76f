import type { Request } from './ask'
import type { Moment, Range } from './core'

/** ToEar is what the page sends to the ear's thread. */
export type ToEar =
  | { kind: 'open'; range: Range; rate: number }
  | { kind: 'aim'; midi: number; a4: number }
  | { kind: 'hear'; samples: Float32Array }
  | { kind: 'take'; number: number; about: TakeBegun; length: number }
  | { kind: 'ask'; id: number; name: string; request: unknown; samples?: Float32Array; take?: TakeAsked }

/** TakeAsked is a take that came in: its number, and how many samples of it there were. */
export type TakeAsked = { number: number; samples: number }

/** TakeBegun is what the core needs to listen to a take as it comes in. */
export type TakeBegun = Request<'take'>

/**
 * FromEar is what the thread sends back. An answer is the core's own JSON, for text is handed
 * over sooner than what it says; sound is what a question filled the room with.
 */
export type FromEar =
  | { kind: 'live'; moments: Moment[] }
  | { kind: 'answer'; id: number; answer: string; sound?: Float32Array<ArrayBuffer> }
  | { kind: 'failed'; id?: number; reason: string }
  /** the take asked about did not come in so */
  | { kind: 'not-taken'; id: number }
  /** the core stopped in the middle and was made afresh; so many times by now */
  | { kind: 'trapped'; times: number; reason: string }
