import { wasi } from './wasi'

/** Moment is one moment of sound, 10 ms after the one before. */
export type Moment = {
  /** pitch in hertz; 0 for none */
  pitch: number
  /** cents from the note aimed at; 0 without one */
  cents: number
  /** confidence from 0 to 1 */
  confidence: number
  /** level in dB below full scale */
  level: number
}

/** Range is between which pitches to listen, in hertz. */
export type Range = { lowest: number; highest: number }

/**
 * Refused is what the core says of a question it cannot answer. Anything else that
 * is thrown is a trap: the core stopped in the middle, and its memory is not to be
 * trusted again.
 */
export class Refused extends Error {}

/** What wasm/main.go and wasm/ask.go export; pointers are places in linear memory. */
type Exports = {
  memory: WebAssembly.Memory
  _initialize: () => void
  buffer: (samples: number) => number
  results: () => number
  open: (lowest: number, highest: number, rate: number) => number
  aim: (midi: number, a4: number) => void
  hear: () => number
  ahead: () => void
  sweep: () => void
  letters: (bytes: number) => number
  reply: () => number
  put: (name: number) => number
}

/** Pitch, cents, confidence and level, as wasm/main.go lays them out. */
const numbersAFrame = 4

/** Ear is the core's own ear, compiled for the browser. */
export class Ear {
  private readonly core: Exports

  private constructor(core: Exports) {
    this.core = core
  }

  /** load starts the ear from its file. */
  static async load(file: Response | PromiseLike<Response>): Promise<Ear> {
    let core: Exports | undefined
    const memory = () => {
      if (!core) throw new Error('the ear is not there yet')
      return core.memory
    }
    const { instance } = await WebAssembly.instantiateStreaming(file, { wasi_snapshot_preview1: wasi(memory) })
    core = instance.exports as unknown as Exports
    core._initialize()
    return new Ear(core)
  }

  /** open begins to listen live. */
  open(range: Range, rate: number) {
    if (!this.core.open(range.lowest, range.highest, rate)) throw new Refused(`the ear does not hear at ${rate} Hz`)
  }

  /** aim sets the note that cents are counted from; 0 for none. */
  aim(midi: number, a4: number) {
    this.core.aim(midi, a4)
  }

  /** hear takes the next samples and returns the moments that are now decided. */
  hear(samples: Float32Array): Moment[] {
    this.write(samples)
    return this.read(this.core.hear())
  }

  /** ahead works out what can be known of the take that comes in, while nothing else waits. */
  ahead() {
    this.core.ahead()
  }

  /** sweep sweeps up in the core's memory, so that the next question does not wait for that. */
  sweep() {
    this.core.sweep()
  }

  /**
   * ask puts a question of core/ask in JSON, with sound where it is about some, and
   * returns the answer. It throws Refused with the core's own words.
   */
  ask(name: string, request: unknown, samples?: Float32Array): unknown {
    return JSON.parse(this.answer(name, request, samples))
  }

  /** answer is ask's answer as the core wrote it. */
  answer(name: string, request: unknown, samples?: Float32Array): string {
    this.write(samples ?? new Float32Array())
    const text = new TextEncoder().encode(name + JSON.stringify(request))
    const at = this.core.letters(text.length)
    new Uint8Array(this.core.memory.buffer, at, text.length).set(text)
    const length = this.core.put(name.length)
    const reply = new TextDecoder().decode(new Uint8Array(this.core.memory.buffer, this.core.reply(), Math.abs(length)))
    if (length < 0) throw new Refused(reply)
    return reply
  }

  /** sound copies so many samples out of the buffer, after a question that filled it. */
  sound(samples: number): Float32Array<ArrayBuffer> {
    return new Float32Array(this.core.memory.buffer as ArrayBuffer, this.core.buffer(samples), samples).slice()
  }

  private write(samples: Float32Array) {
    const at = this.core.buffer(samples.length)
    new Float32Array(this.core.memory.buffer, at, samples.length).set(samples) // the view is made afresh: memory may have moved
  }

  private read(count: number): Moment[] {
    const all = new Float32Array(this.core.memory.buffer, this.core.results(), count * numbersAFrame)
    return Array.from({ length: count }, (_, n) => {
      const [pitch = 0, cents = 0, confidence = 0, level = 0] = all.subarray(n * numbersAFrame, (n + 1) * numbersAFrame)
      return { pitch, cents, confidence, level }
    })
  }
}
