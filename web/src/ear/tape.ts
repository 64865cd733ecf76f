import { asHeard, sixteenBits, wavOf } from './wav'

/**
 * Tape is a recording as its file will hold it, 16 bits a sample, in one piece that is made
 * beforehand: when the last beat is over, nothing has to be put together.
 */
export class Tape {
  private room: Int16Array<ArrayBuffer>
  /** length is how many samples came in. */
  length = 0
  private made: Blob | undefined

  /** About so many samples are expected; more will do. */
  constructor(expected: number) {
    this.room = new Int16Array(expected)
  }

  /** add takes samples in, and returns them as the file will hold them, from -1 to 1. */
  add(samples: Float32Array): Float32Array<ArrayBuffer> {
    const end = this.length + samples.length
    if (end > this.room.length) {
      const larger = new Int16Array(2 * end)
      larger.set(this.heard())
      this.room = larger
    }
    const block = sixteenBits(samples)
    this.room.set(block, this.length)
    this.length = end
    return asHeard(block)
  }

  /** samples are so many of the first, from -1 to 1: device and server hear the same. */
  samples(count: number): Float32Array<ArrayBuffer> {
    return asHeard(this.room.subarray(0, count))
  }

  /** file is all of it as a WAV file; it is made once, when it is first asked for. */
  file(rate: number): Blob {
    this.made ??= wavOf([this.heard()], rate)
    return this.made
  }

  private heard() {
    return this.room.subarray(0, this.length)
  }
}
