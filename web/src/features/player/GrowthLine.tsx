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
/** Days written under a line; more would run into each other. */
const mostWritten = 6
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
      {/* Each day stands under its dot; where there are many, every second or third is written. */}
      <div className="relative mt-1 h-9">
        {points.map((p, n) => {
          const written = (points.length - 1 - n) % Math.ceil(points.length / mostWritten) === 0
          const style = { left: `${(100 * x(n)) / width}%` }
          const look = 'absolute -translate-x-1/2 whitespace-nowrap text-xs text-soft'
          if (p.takes.length === 0)
            return (
              <span key={p.monday} style={style} className={look}>
                {written && shortDay(p.monday)}
              </span>
            )
          return (
            <button
              key={p.monday}
              type="button"
              style={style}
              aria-expanded={n === open}
              aria-label={`Takes of the week of ${shortDay(p.monday)}`}
              onClick={() => setOpen(n === open ? undefined : n)}
              className={`${look} min-h-8 min-w-6 rounded underline decoration-edge aria-expanded:text-ink`}
            >
              {written ? shortDay(p.monday) : '·'}
            </button>
          )
        })}
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

/** spoken is the whole line for a screen reader, week by week. */
function spoken(title: string, unit: string, points: Dot[]): string {
  return `${title} by week: ${points.map((p) => `${p.monday}, ${p.value.toFixed(1)} ${unit}`).join('; ')}`
}
