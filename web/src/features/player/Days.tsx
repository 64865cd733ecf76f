import { mondayOf, shifted, shortDay } from '../../ui/days'

/** Days is a row for each week, a mark for each day played. */
export function Days({ days }: { days: string[] }) {
  if (days.length === 0) return null
  // Days are written as 2026-11-26, so that they compare and count as they are.
  const played = new Set(days)
  const first = mondayOf(days[0] ?? '')
  const last = days.at(-1) ?? ''
  const weeks: string[][] = []
  // From the first day played to the last: weeks before are not weeks missed.
  for (let at = first; at <= last; at = shifted(at, 7)) weeks.push([0, 1, 2, 3, 4, 5, 6].map((n) => shifted(at, n)))
  return (
    <section className="mt-8">
      <h2>Days practiced</h2>
      <ol className="mt-2 flex flex-wrap gap-3" aria-label={`${days.length} days`}>
        {weeks.map((week) => (
          <li key={week[0]}>
            <span className="flex gap-0.5">
              {week.map((d) => (
                <span key={d} className={`block h-6 w-2 ${played.has(d) ? 'bg-ink' : 'bg-band'}`}>
                  {/* Seen, it is a mark; heard, only the days that were played are read out. */}
                  <span className="sr-only">{played.has(d) && d}</span>
                </span>
              ))}
            </span>
            <span className="text-xs text-soft">{shortDay(week[0] ?? '')}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}
