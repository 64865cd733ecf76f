/** Bars of 2 dB each, so that the whole reaches from full scale to 48 dB below it. */
const steps = 24

/** levelSteps is how many bars a level lights, 0 to 1 of full scale. */
export function levelSteps(level: number): number {
  const db = 20 * Math.log10(Math.max(level, 1e-6))
  return Math.max(0, Math.min(steps, Math.round((db + 2 * steps) / 2)))
}

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
      className="flex h-6 items-end gap-1"
    >
      {Array.from({ length: steps }, (_, n) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: the bars are their places
          key={n}
          className={`drawn w-2 ${n < lit ? (n > steps - 2 ? 'bg-not-yet' : 'bg-ink') : 'bg-rule'}`}
          style={{ height: `${30 + (70 * n) / steps}%` }}
        />
      ))}
    </span>
  )
}
