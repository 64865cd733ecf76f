import { useState } from 'react'
import { Link } from 'react-router'
import { shortDay } from '../../ui/days'

/** A week's value, and the takes it was measured in. */
type Dot = { monday: string; value: number; takes: string[] }
/** unit stands behind every number; says is the trend in the core's words. */
type Props = { title: string; unit: string; says: string; points: Dot[] }

/** Units of the drawing; it scales with the page. */
const width = 340
/** Flat enough that three stand on one screen. */
const height = 130
/** Room for the first and last dot. */
const edge = 14
/** Takes listed behind a dot: more is a search, not a look. */
const mostListed = 12

/** GrowthLine is one value by week. A dot opens the takes behind it. */
export function GrowthLine({ title, unit, says, points }: Props) {
  const [open, setOpen] = useState<number>()
  const top = Math.max(1, ...points.map((p) => p.value)) * 1.15
  const day = (n: number) => Date.parse(points[n]?.monday ?? '')
  const span = day(points.length - 1) - day(0)
  const x = (n: number) => (span > 0 ? edge + ((day(n) - day(0)) / span) * (width - 2 * edge) : width / 2)
  const y = (v: number) => height - 4 - (v / top) * (height - 20)
  const shown = open === undefined ? undefined : points[open]
  return (
    <section>
      <h3 className="text-lg">
        {title} <span className="font-sans text-sm text-soft">{unit}</span>
      </h3>
      <p className="min-h-12 text-sm">{says}</p>
      {points.length > 0 && (
        <svg
          viewBox={`0 0 ${width} ${height}`}
          className="mt-1 w-full border-b border-edge"
          role="img"
          aria-label={spoken(title, unit, points)}
        >
          <polyline
            points={points.map((p, n) => `${x(n)},${y(p.value)}`).join(' ')}
            fill="none"
            stroke="var(--edge)"
            strokeWidth="1.5"
          />
          {points.map((p, n) => (
            <g key={p.monday}>
              <circle
                cx={x(n)}
                cy={y(p.value)}
                r={n === open ? 7 : 5}
                fill={n === open ? 'var(--warm)' : 'var(--ink)'}
              />
              <text x={x(n)} y={y(p.value) - 9} fontSize="11" textAnchor="middle" fill="var(--soft)">
                {p.value.toFixed(p.value < 10 ? 1 : 0)}
              </text>
            </g>
          ))}
        </svg>
      )}
      <div className="mt-1 flex flex-wrap gap-1">
        {points.filter(hasTakes).map((p, n) => (
          <button
            key={p.monday}
            type="button"
            aria-expanded={n === open}
            onClick={() => setOpen(n === open ? undefined : n)}
            className="min-h-8 rounded px-1.5 text-xs text-soft underline decoration-edge aria-expanded:text-ink"
          >
            {shortDay(p.monday)}
          </button>
        ))}
      </div>
      {shown && (
        <ol className="mt-1 flex flex-wrap gap-x-3 text-sm" aria-label="The takes of the week">
          {shown.takes.slice(0, mostListed).map((t, n) => (
            <li key={t}>
              <Link className="underline decoration-edge" to={`/take/${t}`}>
                take {n + 1}
              </Link>
            </li>
          ))}
          {shown.takes.length > mostListed && <li className="text-soft">and {shown.takes.length - mostListed} more</li>}
        </ol>
      )}
    </section>
  )
}

/** A family has no takes to open. */
const hasTakes = (p: Dot) => p.takes.length > 0

/** spoken is the whole line for a screen reader, week by week. */
function spoken(title: string, unit: string, points: Dot[]): string {
  return `${title} by week: ${points.map((p) => `${p.monday}, ${p.value.toFixed(1)} ${unit}`).join('; ')}`
}
