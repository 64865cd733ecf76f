import type { Sound } from './ask'
import { encodeWAV } from './wav'

/** Samples a second that a chosen file is brought to, the rate microphones are asked for. */
const decodedRate = 48_000

/** UnreadableError is a file that this browser cannot make sound of. */
export class UnreadableError extends Error {
  override name = 'UnreadableError'
}

/**
 * toWAV makes a WAV file of any recording the browser can read: FLAC, MP3, and what phones
 * make (m4a, ogg, webm). A WAV file stays as it is, byte for byte. It rejects with an
 * UnreadableError.
 */
export async function toWAV(file: Blob): Promise<{ file: Blob; sound?: Sound }> {
  const bytes = await file.arrayBuffer()
  if (startsWith(bytes, 'RIFF')) return { file, ...(await soundOf(bytes)) }
  let decoded: AudioBuffer
  try {
    decoded = await new OfflineAudioContext(1, 1, decodedRate).decodeAudioData(bytes)
  } catch (cause) {
    throw new UnreadableError(
      'This browser cannot read that file. Save it as WAV, FLAC, MP3 or M4A, and hand it in again.',
      { cause },
    )
  }
  const samples = oneChannel(decoded)
  return { file: encodeWAV([samples], decoded.sampleRate), sound: { samples, rate: decoded.sampleRate } }
}

/** Where a WAV file says how many samples a second it has. */
const rateAt = 24

/** soundOf is a WAV file's sound at its own rate, so that this device can judge it without a network; nothing where it cannot. */
async function soundOf(bytes: ArrayBuffer): Promise<{ sound?: Sound }> {
  try {
    const rate = new DataView(bytes).getUint32(rateAt, true)
    const decoded = await new OfflineAudioContext(1, 1, rate).decodeAudioData(bytes.slice(0))
    return { sound: { samples: oneChannel(decoded), rate } }
  } catch {
    return {} // the server says what is wrong with it
  }
}

function startsWith(bytes: ArrayBuffer, mark: string): boolean {
  const head = new Uint8Array(bytes.slice(0, mark.length))
  return [...mark].every((c, n) => head[n] === c.charCodeAt(0))
}

/** oneChannel is the mean of a recording's channels. */
function oneChannel(of: AudioBuffer): Float32Array<ArrayBuffer> {
  const out = new Float32Array(of.length)
  for (let c = 0; c < of.numberOfChannels; c++) {
    of.getChannelData(c).forEach((x, n) => {
      out[n] = (out[n] ?? 0) + x / of.numberOfChannels
    })
  }
  return out
}
