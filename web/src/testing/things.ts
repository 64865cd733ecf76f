import type { Schemas } from '../api/client'

/** ribbon is a plain drawing of one note. */
export const ribbon: Schemas['Ribbon'] = {
  from_s: 3.5,
  to_s: 12.5,
  range_cents: 75,
  tracks: [{ from_s: 4, to_s: 12, band_cents: 25, written: 'C4', concert: 'B♭3' }],
  strokes: [
    { from_s: 4, to_s: 12, step_s: 2, cents: [0, 2, 4, 2, 0], weight: [80, 90, 90, 90, 40], ink: [90, 90, 90, 90, 60] },
  ],
  jumps: [],
  gaps: [],
  beats_s: [4, 5, 6, 7, 8],
  text: 'C4 held 8 s, in tune.',
}

export const verdict = (result: Schemas['Said']['result'], sentence = 'C4: it jumped away.') =>
  ({
    version: 1,
    result,
    short: sentence,
    sentence,
    tip: { key: 'x', text: 'More air.' },
    measures: [],
    causes: [],
  }) as Schemas['Said']

export function excerpt(
  take: string,
  name: string,
  more: Partial<Schemas['ExcerptView']> = {},
): Schemas['ExcerptView'] {
  return {
    take,
    player: `${name}'s number`,
    name,
    instrument: 'B♭ clarinet',
    title: 'Long tone, counted',
    day: '2026-11-26',
    from_s: 5,
    to_s: 9,
    at: 'where it happened',
    why: [{ reason: 'not-yet', text: 'not yet: C4 jumps', weight: 10 }],
    score: 10,
    score_start_s: 0,
    verdict: verdict('not-yet'),
    ribbon,
    comments: [],
    has_sound: true,
    ...more,
  }
}

export const theClass = { id: 'c', name: 'Ferry Bell Winds', school: 'Quillmarsh Island School', code: 'FERRY-BELL' }
