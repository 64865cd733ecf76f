import type { RibbonData } from '../../ribbon/geometry'

/** How a made-up take goes: cents off at a time in seconds, and how loud. */
type Shape = { cents: (s: number) => number; weight?: (s: number) => number; ink?: number }

/** drawn makes a ribbon of one eight-second note from a formula, for looking at only. */
function drawn(
  text: string,
  parts: { from: number; to: number }[],
  shape: Shape,
  more: Partial<RibbonData> = {},
): RibbonData {
  return {
    from_s: 3.5,
    to_s: 12.5,
    range_cents: 75,
    tracks: [{ from_s: 4, to_s: 12, band_cents: 25, written: 'C4', concert: 'B♭3' }],
    strokes: parts.map(({ from, to }) => {
      const times = Array.from({ length: 81 }, (_, n) => from + ((to - from) * n) / 80)
      return {
        from_s: from,
        to_s: to,
        step_s: (to - from) / 80,
        cents: times.map((s) => shape.cents(s - 4)),
        weight: times.map((s) => Math.round(shape.weight?.(s - 4) ?? 90)),
        ink: times.map(() => shape.ink ?? 95),
      }
    }),
    jumps: [],
    gaps: [],
    beats_s: [4, 5, 6, 7, 8, 9, 10, 11, 12],
    text,
    ...more,
  }
}

/** Where the sample's one note sounds, in seconds. */
const whole = [{ from: 4.05, to: 12 }]

/** samples are the ribbon's grammar, one word each. */
export const samples: { name: string; ribbon: RibbonData }[] = [
  { name: 'Steady', ribbon: drawn('steady', whole, { cents: () => 2 }) },
  { name: 'Wavering', ribbon: drawn('wavering', whole, { cents: (s) => 22 * Math.sin(9 * s) }) },
  { name: 'Flat', ribbon: drawn('flat', whole, { cents: () => -34 }) },
  {
    name: 'Swell',
    ribbon: drawn('swell', whole, { cents: () => 0, weight: (s) => 15 + 85 * Math.sin((Math.PI * s) / 8) }),
  },
  { name: 'Sagging at the end', ribbon: drawn('sagging', whole, { cents: (s) => (s > 6 ? -20 * (s - 6) : 0) }) },
  { name: 'Breathy', ribbon: drawn('breathy', whole, { cents: () => 4, ink: 25 }) },
  {
    name: 'Late, with a gap',
    ribbon: drawn(
      'a gap',
      [
        { from: 4.9, to: 7.2 },
        { from: 7.5, to: 12 },
      ],
      { cents: () => 0 },
      { gaps: [{ from_s: 7.2, to_s: 7.5 }] },
    ),
  },
  {
    name: 'Cracking to another partial',
    ribbon: drawn(
      'a crack',
      [
        { from: 4.05, to: 6 },
        { from: 6.4, to: 12 },
      ],
      { cents: () => 5 },
      { jumps: [{ from_s: 6, to_s: 6.4, above: true, label: 'a twelfth up, to G5' }] },
    ),
  },
]
