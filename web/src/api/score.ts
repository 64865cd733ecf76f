import type { Schemas } from './client'

/** targetsOf lists the segments of a score that sound, in the order of its measured notes. */
export function targetsOf(score: Schemas['Score']): Schemas['Segment'][] {
  return score.segments.filter((s) => s.sounds)
}

/** How a note sounds that is not played on the instrument. */
const verbs: Record<string, string> = { buzz: 'buzzed', sing: 'sung' }

/** nameOf names a target: its written note, and how it sounds when not on the instrument. */
export function nameOf(target: Schemas['Segment']): string {
  const verb = verbs[target.phase]
  return verb ? `${target.written_name}, ${verb}` : (target.written_name ?? '')
}
