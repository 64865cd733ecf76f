/** Bars of 2 dB each, so that the whole reaches from full scale to 48 dB below it. */
const steps = 24

/** levelSteps is how many bars a level lights, 0 to 1 of full scale. */
export function levelSteps(level: number): number {
  const db = 20 * Math.log10(Math.max(level, 1e-6))
  return Math.max(0, Math.min(steps, Math.round((db + 2 * steps) / 2)))
}

/** bars are all of them, in the colours they have lit, or not. */
const bars = (colour: (n: number) => string) =>
  Array.from({ length: steps }, (_, n) => (
    <span
      // biome-ignore lint/suspicious/noArrayIndexKey: the bars are their places
      key={n}
      className={`drawn w-2 ${colour(n)}`}
      style={{ height: `${30 + (70 * n) / steps}%` }}
    />
  ))
// Made once: a level changes fifty times a second, and then only how much of the lit ones is in sight.
const unlit = bars(() => 'bg-rule')
const lighted = bars((n) => (n > steps - 2 ? 'bg-not-yet' : 'bg-ink'))
/** rem from one bar to the next */
const apart = 0.75

/** LevelBar shows a microphone's level in steps of 2 dB, so many of them lit; full is too loud. */
export function LevelBar({ lit }: { lit: number }) {
  return (
    // A native meter cannot be drawn in steps.
    // biome-ignore lint/a11y/useSemanticElements: see above
    <span
      role="meter"
      aria-label="Microphone level"
      aria-valuemin={0}
      aria-valuemax={steps}
      aria-valuenow={lit}
      className="relative flex h-6 items-end gap-1"
    >
      {unlit}
      <span
        className="absolute inset-0 flex items-end gap-1"
        style={{ clipPath: `inset(0 calc(100% - ${apart * lit}rem) 0 0)` }}
      >
        {lighted}
      </span>
    </span>
  )
}
