const ahead = 0.2 // seconds that clicks are sounded ahead
const look = 40 // milliseconds between looks at the clock

/** Click is a metronome on the sound's own clock. */
export class Click {
  readonly #context = new AudioContext()

  /** run clicks from a beat on; onBeat is told the beat that is on, in fractions. */
  run(bpm: number, from: number, to: number, onBeat: (beat: number) => void): { stop: () => void } {
    void this.#context.resume()
    const each = 60 / bpm
    // A tenth of a second, so that the first click is not half cut off.
    const start = this.#context.currentTime + 0.1 - from * each
    let sounded = Math.ceil(from)
    const timer = setInterval(() => {
      const now = (this.#context.currentTime - start) / each
      // Clicks are handed to the sound card ahead of time: timers of a busy page come late, the
      // card does not.
      while (sounded < to && start + sounded * each < this.#context.currentTime + ahead) {
        this.#tick(start + sounded * each, sounded % 4 === 0)
        sounded++
      }
      onBeat(Math.max(0, now))
      if (now >= to) clearInterval(timer)
    }, look)
    return { stop: () => clearInterval(timer) }
  }

  #tick(at: number, accent: boolean) {
    const tone = this.#context.createOscillator()
    const gain = this.#context.createGain()
    // Well above what a band plays, so that a click is heard through it.
    tone.frequency.value = accent ? 1760 : 1320
    gain.gain.setValueAtTime(accent ? 0.25 : 0.15, Math.max(at, this.#context.currentTime))
    // Cut off within 60 ms: a click that rings is a note, and the band would tune to it.
    gain.gain.exponentialRampToValueAtTime(0.0005, Math.max(at, this.#context.currentTime) + 0.06)
    tone.connect(gain).connect(this.#context.destination)
    tone.start(at)
    tone.stop(at + 0.07)
  }

  close() {
    void this.#context.close()
  }
}

/** Drone is a soft tone to tune to: moderate, for young ears. */
export class Drone {
  readonly #context = new AudioContext()
  #gain?: GainNode
  #tones: OscillatorNode[] = []

  start(hz: number) {
    this.stop()
    void this.#context.resume()
    const gain = this.#context.createGain()
    gain.gain.setValueAtTime(0, this.#context.currentTime)
    // Faded in: a tone that begins at once begins with a crack.
    gain.gain.linearRampToValueAtTime(0.06, this.#context.currentTime + 0.3)
    gain.connect(this.#context.destination)
    // Three partials: a pure sine is hard to tune to, since nothing in it beats.
    this.#tones = [1, 2, 3].map((n) => {
      const tone = this.#context.createOscillator()
      const part = this.#context.createGain()
      tone.frequency.value = n * hz
      part.gain.value = 1 / (n * n)
      tone.connect(part).connect(gain)
      tone.start()
      return tone
    })
    this.#gain = gain
  }

  stop() {
    const gain = this.#gain
    if (!gain) return
    gain.gain.linearRampToValueAtTime(0, this.#context.currentTime + 0.2)
    for (const t of this.#tones) t.stop(this.#context.currentTime + 0.25)
    this.#gain = undefined
  }

  close() {
    void this.#context.close()
  }
}
