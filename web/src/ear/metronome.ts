import type { Schemas } from '../api/client'

/** Wanted are the sounds a player wants under a take. Those beyond the count-in want headphones: they would be recorded. */
export type Wanted = { click: boolean; drone: boolean }

// Moderate, all of them: they may be in headphones on young ears.
const clickLength = 0.03 // seconds
/** Shares of full scale: a click is heard over a horn, a tone stays under a flute. */
const clickGain = 0.25
/** A reference tone, long and steady, needs less. */
const toneGain = 0.12
/** Seconds: shorter fades click. */
const fade = 0.05

/** scheduleSounds sounds the clicks, the notes to listen to and the drone; the returned function silences them. */
export function scheduleSounds(
  context: AudioContext,
  start: number,
  timeline: Schemas['Timeline'],
  wanted: Wanted,
): () => void {
  const out = context.createGain()
  out.connect(context.destination)
  for (const click of timeline.clicks) if (click.audible || wanted.click) sound(out, clickOf(click), start + click.at_s)
  for (const tone of timeline.tones)
    sound(out, { ...tone, hertz: tone.pitch_hz, long: tone.length_s, held: true }, start + tone.at_s)
  if (wanted.drone && timeline.drone_hz)
    sound(out, { hertz: timeline.drone_hz, long: timeline.total_s, held: true }, start)
  return () => out.disconnect()
}

/** Something that sounds: hertz, seconds, and whether it is held or only struck. */
type Note = { hertz: number; long: number; held: boolean }

/**
 * clickOf sounds the first beat of a segment a little higher, so that it can be found by
 * ear.
 */
function clickOf(click: Schemas['Click']): Note {
  return { hertz: click.accent ? 1800 : 1400, long: clickLength, held: false }
}

/**
 * sound plays one note at a moment of the context's own clock, which does not drift
 * against the recording.
 */
function sound(out: GainNode, note: Note, at: number) {
  const { context } = out
  const tone = context.createOscillator()
  const shape = context.createGain()
  tone.type = 'triangle'
  tone.frequency.value = note.hertz
  if (note.held) {
    shape.gain.setValueAtTime(0, at)
    shape.gain.linearRampToValueAtTime(toneGain, at + fade)
    shape.gain.setValueAtTime(toneGain, at + note.long - fade)
    shape.gain.linearRampToValueAtTime(0, at + note.long)
  } else {
    shape.gain.setValueAtTime(clickGain, at)
    shape.gain.exponentialRampToValueAtTime(0.001, at + note.long)
  }
  tone.connect(shape).connect(out)
  tone.start(at)
  tone.stop(at + note.long)
}
