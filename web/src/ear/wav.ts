/** encodeWAV writes one channel of ±1 samples as a 16-bit WAV file. */
export function encodeWAV(blocks: Float32Array[], rate: number): Blob {
  const count = blocks.reduce((sum, b) => sum + b.length, 0)
  const view = new DataView(new ArrayBuffer(44 + 2 * count))
  const text = (at: number, s: string) => {
    for (let n = 0; n < s.length; n++) view.setUint8(at + n, s.charCodeAt(n))
  }
  text(0, 'RIFF')
  view.setUint32(4, 36 + 2 * count, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true) // PCM
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, 2 * rate, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, 2 * count, true)
  let at = 44
  for (const block of blocks) {
    for (const x of block) {
      view.setInt16(at, sixteenBit(x), true)
      at += 2
    }
  }
  return new Blob([view], { type: 'audio/wav' })
}

/** sixteenBit is a ±1 sample as a 16-bit file holds it. */
export function sixteenBit(x: number): number {
  return Math.max(-32768, Math.min(32767, Math.round(x * 32768)))
}
