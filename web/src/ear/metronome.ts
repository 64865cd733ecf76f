import type { Schemas } from '../api/client'

const clickLength = 0.03 // seconds
const clickGain = 0.25 // moderate: it may be in headphones on young ears

/** scheduleClicks sounds the audible clicks; the returned function silences them. */
export function scheduleClicks(context: AudioContext, start: number, clicks: Schemas['Click'][]): () => void {
  const gain = context.createGain()
  gain.connect(context.destination)
  for (const click of clicks.filter((c) => c.audible)) {
    const at = start + click.at_s
    const tone = context.createOscillator()
    const shape = context.createGain()
    tone.type = 'triangle'
    tone.frequency.value = click.accent ? 1800 : 1400
    shape.gain.setValueAtTime(clickGain, at)
    shape.gain.exponentialRampToValueAtTime(0.001, at + clickLength)
    tone.connect(shape).connect(gain)
    tone.start(at)
    tone.stop(at + clickLength)
  }
  return () => gain.disconnect()
}
