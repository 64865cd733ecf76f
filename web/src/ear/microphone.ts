/** Microphone is an open microphone and the context it sounds in. */
export type Microphone = {
  context: AudioContext
  onBlock: (heard: (at: number, samples: Float32Array) => void) => void
  close: () => void
}

/** MicrophoneError says, to a player, why there is no microphone and what to do. */
export class MicrophoneError extends Error {}

const wantedRate = 48_000

/**
 * openMicrophone asks for raw sound: echo cancellation, noise suppression and
 * gain control would bend level and pitch.
 */
export async function openMicrophone(): Promise<Microphone> {
  if (!window.isSecureContext || !navigator.mediaDevices) {
    throw new MicrophoneError(
      'This address is not secure, so the browser gives no microphone. Open the page by https, or hand in a WAV file below.',
    )
  }
  const stream = await navigator.mediaDevices
    .getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 },
    })
    .catch((error: unknown) => {
      throw new MicrophoneError(reason(error))
    })
  const context = newContext()
  try {
    await context.audioWorklet.addModule('/recorder-worklet.js')
    const node = new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0, channelCount: 1 })
    context.createMediaStreamSource(stream).connect(node)
    await context.resume()
    return {
      context,
      onBlock: (heard) => {
        node.port.onmessage = (e: MessageEvent<{ at: number; samples: Float32Array }>) =>
          heard(e.data.at, e.data.samples)
      },
      close: () => closeAll(stream, context),
    }
  } catch (error) {
    closeAll(stream, context)
    throw error
  }
}

/** newContext runs at 48 kHz where the browser can, and at its own rate where not. */
function newContext(): AudioContext {
  try {
    return new AudioContext({ sampleRate: wantedRate, latencyHint: 'interactive' })
  } catch {
    return new AudioContext()
  }
}

function closeAll(stream: MediaStream, context: AudioContext) {
  for (const track of stream.getTracks()) track.stop()
  void context.close()
}

function reason(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError')
    return 'The browser was not allowed to use the microphone. Press the microphone sign beside the address, allow it, and try again.'
  if (name === 'NotFoundError') return 'No microphone was found. Plug one in, or hand in a WAV file below.'
  return 'The microphone could not be opened. Another program may be using it: close that, and try again.'
}
