/** Source is something that is listened to, and the context it sounds in. */
export type Source = {
  context: AudioContext
  /** label names the device, as the browser does */
  label: string
  /** through tells this microphone and how it is set from any other, and says nothing of it */
  through: string
  onBlock: (heard: (at: number, samples: Float32Array<ArrayBuffer>) => void) => void
  /** lost resolves with why, when the source goes away in the middle */
  lost: Promise<string>
  /** begin lets a source that plays by itself begin at a moment of the context's clock */
  begin?: (at: number) => void
  close: () => void
}

/** Refusal is why there is no microphone. */
export type Refusal = 'insecure' | 'denied' | 'dismissed' | 'none' | 'busy' | 'stuck' | 'unknown'

/** MicrophoneError says, to a player, why there is no microphone and what to do. */
export class MicrophoneError extends Error {
  readonly refusal: Refusal
  constructor(refusal: Refusal) {
    super(helps[refusal])
    this.refusal = refusal
  }
}

/**
 * What to do about each way in which a microphone is not to be had. Browsers tell them
 * apart by name; nobody else does.
 */
const helps: Record<Refusal, string> = {
  insecure: 'This page is not safe, so you get no microphone. Open it by https. Or hand in a recording below.',
  denied:
    'The microphone is blocked. Press the sign beside the address at the top. Set the microphone to "allow". Then try again. Does that not help? Tell your director.',
  dismissed: 'You closed the question. Press Record again, then press "allow".',
  none: 'No microphone was found. Plug one in, or hand in a recording below.',
  busy: 'Another program has the microphone. Close it, then try again.',
  stuck:
    'The sound does not start. Plug in headphones or a speaker, load the page again, and try once more. Or hand in a recording below.',
  unknown: 'The microphone does not open. Plug it in again or close the browser. Then try again.',
}

/** Hertz. A browser may give another rate; the context's real one is what counts. */
const wantedRate = 48_000

/**
 * openMicrophone asks for raw sound: echo cancellation, noise suppression and
 * gain control would bend level and pitch.
 */
export async function openMicrophone(device = chosenDevice()): Promise<Source> {
  if (!window.isSecureContext || !navigator.mediaDevices) throw new MicrophoneError('insecure')
  const stream = await askFor(device)
  const context = newContext()
  try {
    const node = await inTime(recorderIn(context))
    context.createMediaStreamSource(stream).connect(node)
    await inTime(context.resume())
    const track = stream.getAudioTracks()[0]
    return {
      context,
      label: track?.label ?? '',
      through: await throughOf(track),
      onBlock: (heard) => hearBlocks(node, heard),
      lost: lossOf(track, context),
      close: () => closeAll(stream, context),
    }
  } catch (error) {
    closeAll(stream, context)
    throw error
  }
}

/**
 * askFor asks for raw sound: echo cancellation, noise suppression and gain control all
 * bend level and phase. A device that is gone gives way to any.
 */
function askFor(device: string): Promise<MediaStream> {
  const raw = { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 }
  return navigator.mediaDevices
    .getUserMedia({ audio: device ? { ...raw, deviceId: { exact: device } } : raw })
    .catch((error: unknown) => {
      if (device && error instanceof DOMException && error.name === 'OverconstrainedError') return askFor('') // it was unplugged
      throw new MicrophoneError(refusalOf(error))
    })
}

/** What a simulated player plays: samples from -1 to 1, and how many a second. */
type Played = { samples: Float32Array<ArrayBuffer>; rate: number }

/**
 * playerSource is a simulated player in the microphone's place. Its sound is started by the
 * press itself, before what is to be played is made: some browsers let none begin later.
 */
export async function playerSource(played: Played | Promise<Played>, label: string): Promise<Source> {
  const context = newContext()
  const running = context.resume()
  running.catch(() => {}) // told below, when it is waited for
  try {
    const { samples, rate } = await played
    const node = await recorderIn(context)
    const sound = context.createBuffer(1, samples.length, rate)
    sound.copyToChannel(samples, 0)
    const player = context.createBufferSource()
    player.buffer = sound
    player.connect(node)
    // The recorder hears only while something is connected: silence keeps it awake.
    const silence = context.createConstantSource()
    silence.offset.value = 0
    silence.connect(node)
    silence.start()
    await inTime(running)
    return {
      context,
      label,
      through: 'simulated',
      onBlock: (heard) => hearBlocks(node, heard),
      lost: new Promise(() => {}),
      begin: (at) => player.start(at),
      close: () => {
        if (context.state !== 'closed') void context.close()
      },
    }
  } catch (error) {
    void context.close()
    throw error
  }
}

/** Milliseconds for sound to start: on a machine without a sound output some browsers never start it, and never say so. */
const longestStart = 8_000

/** inTime gives up on sound that does not start, and says what to do. */
function inTime<T>(started: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new MicrophoneError('stuck')), longestStart)
  })
  return Promise.race([started, late]).finally(() => clearTimeout(timer))
}

/** recorderIn loads the worklet from a file: under the content policy no blob may run. */
async function recorderIn(context: AudioContext): Promise<AudioWorkletNode> {
  await context.audioWorklet.addModule('/recorder-worklet.js')
  return new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0, channelCount: 1 })
}

/** hearBlocks passes on what the worklet hears, with the sample it begins at. */
function hearBlocks(node: AudioWorkletNode, heard: (at: number, samples: Float32Array<ArrayBuffer>) => void) {
  node.port.onmessage = (e: MessageEvent<{ at: number; samples: Float32Array<ArrayBuffer> }>) =>
    heard(e.data.at, e.data.samples)
}

const muteGrace = 1_500 // milliseconds: a short drop-out is no reason to stop

/** lossOf tells when a microphone goes away: unplugged, taken by a call, or the page put to sleep. */
function lossOf(track: MediaStreamTrack | undefined, context: AudioContext): Promise<string> {
  return new Promise((lost) => {
    track?.addEventListener('ended', () => lost('The microphone was pulled out or turned off.'))
    track?.addEventListener('mute', () =>
      setTimeout(() => track.muted && lost('A call or another program took the microphone.'), muteGrace),
    )
    context.addEventListener('statechange', () => {
      if (context.state === 'suspended' || (context.state as string) === 'interrupted')
        lost('The device went to sleep, or a call came in.')
    })
    const hidden = () => {
      if (document.visibilityState !== 'hidden') return
      document.removeEventListener('visibilitychange', hidden)
      lost('The page was put in the background.')
    }
    document.addEventListener('visibilitychange', hidden)
  })
}

/** Letters of a microphone's opaque name: enough that no player's own two are taken for one. */
const throughLetters = 16

/**
 * throughOf names a microphone so that the tone of two takes is compared only where both
 * came through it, set the same way. It is a digest: nobody reads a device's name from it.
 */
async function throughOf(track: MediaStreamTrack | undefined): Promise<string> {
  if (!track) return ''
  const s = track.getSettings()
  const set = [s.deviceId, s.groupId, track.label, s.echoCancellation, s.noiseSuppression, s.autoGainControl]
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(JSON.stringify(set)))
  return Array.from(new Uint8Array(digest), (b) => b.toString(16).padStart(2, '0'))
    .join('')
    .slice(0, throughLetters)
}

/** newContext runs at 48 kHz where the browser can, and at its own rate where not. */
function newContext(): AudioContext {
  try {
    return new AudioContext({ sampleRate: wantedRate, latencyHint: 'interactive' })
  } catch {
    return new AudioContext()
  }
}

/** closeAll gives the microphone back, so that the browser's light goes out. */
function closeAll(stream: MediaStream, context: AudioContext) {
  for (const track of stream.getTracks()) track.stop()
  if (context.state !== 'closed') void context.close()
}

/**
 * refusalOf names why there is no microphone. A question that was closed is no refusal:
 * it may be asked again.
 */
function refusalOf(error: unknown): Refusal {
  const name = error instanceof DOMException ? error.name : ''
  const said = error instanceof DOMException ? error.message : ''
  if (name === 'NotAllowedError') return said.includes('dismissed') ? 'dismissed' : 'denied'
  if (name === 'NotFoundError') return 'none'
  if (name === 'NotReadableError') return 'busy'
  return 'unknown'
}

/** The chosen microphone, by the browser's id, which is another on every site. */
const deviceKept = 'microphone'
/** The microphone that was checked, by name: another one is checked anew. */
const checkedKept = 'microphone-checked'

/** chosenDevice is the microphone the player chose here; empty is the browser's own choice. */
export function chosenDevice(): string {
  return localStorage.getItem(deviceKept) ?? ''
}

/** chooseDevice remembers a microphone for this device. */
export function chooseDevice(id: string) {
  localStorage.setItem(deviceKept, id)
}

/** microphones lists the microphones by name; names are there once one was opened. */
export async function microphones(): Promise<MediaDeviceInfo[]> {
  const all = await navigator.mediaDevices.enumerateDevices()
  return all.filter((d) => d.kind === 'audioinput' && d.deviceId !== 'default' && d.deviceId !== 'communications')
}

/** isChecked reports whether the microphone with this name was checked, or the check was put off for now. */
export function isChecked(label: string): boolean {
  return localStorage.getItem(checkedKept) === label || sessionStorage.getItem(checkedKept) !== null
}

/** rememberCheck remembers that a microphone was found good. */
export function rememberCheck(label: string) {
  localStorage.setItem(checkedKept, label)
}

/** putCheckOff asks again in the next session only. */
export function putCheckOff() {
  sessionStorage.setItem(checkedKept, 'later')
}
