import type { Holding } from './useHold'

const longest = 60 // seconds that fill the ring

/** Resting is the rest before the next time: a ring that empties, and why. */
export function Resting({ hold }: { hold: Holding }) {
  if (hold.over)
    return (
      <p role="status" className="mt-4 border-l-4 border-nearly pl-4">
        {hold.why}
      </p>
    )
  const around = 2 * Math.PI * 20
  const share = Math.min(1, hold.seconds / longest)
  return (
    <p className="mt-4 flex items-center gap-4 border-l-4 border-nearly pl-4" data-testid="resting">
      <svg viewBox="0 0 48 48" width="56" height="56" className="-rotate-90" aria-hidden>
        <circle cx="24" cy="24" r="20" fill="none" stroke="var(--band)" strokeWidth="5" />
        <circle
          cx="24"
          cy="24"
          r="20"
          fill="none"
          stroke="var(--nearly)"
          strokeWidth="5"
          strokeDasharray={`${share * around} ${around}`}
        />
      </svg>
      <span>
        <strong className="font-serif text-lg tabular-nums">{hold.seconds} s</strong> of rest. {hold.why}
      </span>
    </p>
  )
}
