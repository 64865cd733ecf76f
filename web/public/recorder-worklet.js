// Runs on the audio thread: gathers the microphone's samples into blocks and
// passes each on with the moment of its first sample. It must be a file of its
// own: the page's policy allows no generated scripts.
// Of 48000 a second: a block a frame and a bit, for each is work for the page that draws.
const blockSize = 1024

class Recorder extends AudioWorkletProcessor {
  constructor() {
    super()
    this.block = new Float32Array(blockSize)
    this.filled = 0
    this.at = 0
  }

  process(inputs) {
    const channel = inputs[0]?.[0]
    if (!channel) return true
    if (this.filled === 0) this.at = currentTime
    this.block.set(channel, this.filled)
    this.filled += channel.length
    if (this.filled === blockSize) {
      this.port.postMessage({ at: this.at, samples: this.block }, [this.block.buffer])
      this.block = new Float32Array(blockSize)
      this.filled = 0
    }
    return true
  }
}
registerProcessor('recorder', Recorder)
