import type { Schemas } from '../../api/client'
import { clock } from '../../ui/clock'
import { Problem } from '../../ui/Problem'

/** DayTotals is the day's time against its budget, and what it asks of each section's lips and breath. */
export function DayTotals({ work, problem }: { work?: Schemas['DayWork']; problem: unknown }) {
  if (problem) return <Problem error={problem} />
  if (!work) return <div className="h-24" />
  // Half a second is rounding, not a day that is too full.
  const over = work.total_s > work.budget_s + 0.5
  // Whichever is longer fills the bar, so that the other is seen against it.
  const most = Math.max(work.total_s, work.budget_s)
  return (
    <div>
      <p className="flex items-baseline justify-between text-sm">
        <span>
          <strong className={`font-serif text-lg ${over ? 'text-not-yet' : ''}`} data-testid="day-total">
            {clock(work.total_s)}
          </strong>{' '}
          of {clock(work.budget_s)}
          {over && ' – more than there is'}
        </span>
      </p>
      <div className="relative mt-1 h-3 bg-band" aria-hidden>
        {work.items.map((w, n) => (
          <span
            key={w.key}
            className={`absolute inset-y-0 border-r border-paper ${over ? 'bg-not-yet' : 'bg-ink'}`}
            style={{
              left: `${(100 * work.items.slice(0, n).reduce((s, x) => s + x.seconds, 0)) / most}%`,
              width: `${(100 * w.seconds) / most}%`,
              // Two shades in turn tell one step from the next without a colour for each.
              opacity: 0.85 - 0.35 * (n % 2),
            }}
          />
        ))}
        <span
          className="absolute -top-1 -bottom-1 w-0.5 bg-warm"
          style={{ left: `${(100 * work.budget_s) / most}%` }}
        />
      </div>
      {/* What is too much for lips or breath is said aloud: it is the caution the day's length does not
          give. */}
      {work.over.length > 0 && (
        <ul className="mt-2 border-l-4 border-not-yet pl-3 text-sm">
          {work.over.map((o) => (
            <li key={o}>{o}.</li>
          ))}
        </ul>
      )}
      <details className="mt-2 text-sm">
        <summary className="cursor-pointer text-soft">Load by section</summary>
        <table className="mt-2 w-full border-collapse tabular-nums">
          <thead>
            <tr className="text-left text-xs text-soft">
              <th className="font-normal">Section</th>
              <th className="font-normal">sound</th>
              <th className="font-normal">rest</th>
              <th className="font-normal">lips</th>
              <th className="font-normal">breath</th>
              <th className="font-normal">high</th>
            </tr>
          </thead>
          <tbody>
            {work.sections.map((s) => (
              <tr key={`${s.section} ${s.stage}`} className="border-t border-rule">
                <th scope="row" className="text-left font-normal">
                  {s.section} <span className="text-xs text-soft">stage {s.stage}</span>
                </th>
                {[s.load.sound_s, s.load.rest_s, s.load.lip_s, s.load.breath_s, s.load.high_s].map((v, n) => (
                  // The columns are told apart by their place alone.
                  // biome-ignore lint/suspicious/noArrayIndexKey: see above
                  <td key={n} className={v === 0 ? 'text-soft' : ''}>
                    {v === 0 ? '–' : clock(v)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </div>
  )
}
