import type { Schemas } from '../../api/client'
import { howLoud } from './Loudness'

/** A stretch of the score in which one thing is done. */
type Segment = Schemas['Segment']

/** What is done, as short as it can be said; playing is said by the note alone. */
const verbs: Partial<Record<Segment['phase'], string>> = {
  breathe: 'in',
  hold: 'hold',
  out: 'out',
  rest: 'rest',
  ready: 'ready',
  free: 'your tune',
  listen: 'listen',
  finger: 'finger',
  buzz: 'buzz',
  sing: 'sing',
}

/** Course says in one line what comes after what, from the first breath to the end. */
export function Course({ score }: { score: Schemas['Score'] }) {
  const shown = score.segments.filter((s) => s.phase !== 'ready' && s.text !== 'Done.')
  const parts = collapse(shown)
  return (
    <p className="mt-3 border-y border-rule py-2 text-sm leading-6">
      {parts.map((p, n) => (
        // A course is told by its order alone.
        // biome-ignore lint/suspicious/noArrayIndexKey: see above
        <span key={n} className={p.sounds ? 'font-serif text-base' : 'text-soft'}>
          {n > 0 && <span className="text-edge"> · </span>}
          {p.says}
        </span>
      ))}
    </p>
  )
}

/** One link of the line; what sounds is set larger. */
type Part = { says: string; sounds: boolean }

/** collapse tells a course that comes back to the same thing once, with how often it does. */
function collapse(segments: Segment[]): Part[] {
  const parts = segments.map(part)
  for (let length = 2; length <= parts.length / 2; length++) {
    const times = repeats(parts, length)
    if (times * length >= parts.length - 1 && times > 1) {
      return [...parts.slice(0, length), { says: `${times} times`, sounds: false }]
    }
  }
  return parts
}

/** repeats counts how often the first parts come again, one after the other. */
function repeats(parts: Part[], length: number): number {
  let times = 1
  while (parts.slice(times * length, (times + 1) * length).every((p, n) => p.says === parts[n]?.says)) {
    if ((times + 1) * length > parts.length) break
    times++
  }
  return times
}

/** part says a segment: what to do, which note, how many beats. */
function part(s: Segment): Part {
  const sounds = s.sounds || s.phase === 'free'
  const bursts = s.bursts ? ` in ${s.bursts} bursts` : ''
  const name = s.written_name && s.phase !== 'rest' ? s.written_name : ''
  const verb = verbs[s.phase] ?? ''
  const slide = s.glide_to_midi ? ' sliding' : ''
  const how = [howLoud(s), ...manner(s)].filter(Boolean).map((h) => `, ${h}`)
  return { says: [verb, name, beats(s.beats)].filter(Boolean).join(' ') + slide + bursts + how.join(''), sounds }
}

/** How a note is begun and ended, in a child's words. */
const marks: Record<string, string> = {
  staccato: 'short',
  tenuto: 'full length',
  accent: 'with an accent',
  taper: 'the end fades by itself',
  stopped: 'the tongue stops it',
  breath: 'begun with the breath',
}

/** manner says what the music asks of a note beside its pitch and length. */
function manner(s: Segment): string[] {
  return [
    marks[s.mark ?? ''] ?? '',
    s.articulation === 'breath' ? (marks.breath ?? '') : '',
    s.pulses ? `${s.pulses} ${s.pulses === 1 ? 'pulse' : 'pulses'} a beat` : '',
    marks[s.ending ?? ''] ?? '',
  ]
}

/** beats says a number of beats, with one place where it is no whole one. */
function beats(n: number): string {
  return Number.isInteger(n) ? String(n) : n.toFixed(1)
}
