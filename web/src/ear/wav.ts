/** encodeWAV writes one channel of ±1 samples as a 16-bit WAV file. */
export function encodeWAV(blocks: Float32Array[], rate: number): Blob {
  return wavOf(blocks.map(sixteenBits), rate)
}

/** wavOf writes one channel of 16-bit samples as a file. */
export function wavOf(blocks: Int16Array<ArrayBuffer>[], rate: number): Blob {
  const bytes = 2 * blocks.reduce((sum, b) => sum + b.length, 0)
  const view = new DataView(new ArrayBuffer(44))
  const text = (at: number, s: string) => {
    for (let n = 0; n < s.length; n++) view.setUint8(at + n, s.charCodeAt(n))
  }
  text(0, 'RIFF')
  view.setUint32(4, 36 + bytes, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true) // PCM
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, 2 * rate, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, bytes, true)
  return new Blob([view, ...blocks], { type: 'audio/wav' })
}

/**
 * sixteenBits are ±1 samples as a 16-bit file holds them: every machine with a browser
 * writes the low byte first, as the file wants it.
 */
export function sixteenBits(samples: Float32Array): Int16Array<ArrayBuffer> {
  const out = new Int16Array(samples.length)
  for (let n = 0; n < out.length; n++) {
    out[n] = Math.max(-32768, Math.min(32767, Math.round((samples[n] ?? 0) * 32768)))
  }
  return out
}

/** asHeard are 16-bit samples as ±1 again: what is listened to here is what the file holds. */
export function asHeard(samples: Int16Array): Float32Array<ArrayBuffer> {
  const out = new Float32Array(samples.length)
  for (let n = 0; n < out.length; n++) out[n] = (samples[n] ?? 0) / 32768
  return out
}
