import type { Schemas } from '../../api/client'
import type { Recording } from '../../ear/recorder'
import { useLive } from './useLive'

/** The step in seconds from its first click, as the core laid it out. */
export type Timeline = Schemas['Timeline']

/** cueAt is which of a score's cues is on at a moment; the last one stays. */
export function cueAt(t: Timeline, at: number): number {
  const found = t.cues.findIndex((c) => at < c.to_s)
  return found < 0 ? t.cues.length - 1 : found
}

/**
 * useCue is which cue is on now. The recording's own clock says it, so that what is shown is what
 * is being recorded.
 */
export function useCue(recording: Recording, timeline: Timeline): number {
  return useLive(recording, (r) => cueAt(timeline, r.position()))
}
