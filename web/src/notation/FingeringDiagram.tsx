import type { Schemas } from '../api/client'

/** One hole, key, valve or slide of a fingering, placed by the core. */
type Mark = Schemas['Mark']
/**
 * height is in pixels; changes are the marks that differ from the fingering beside it,
 * which are lit.
 */
type Props = { fingering: Schemas['Fingering']; height?: number; changes?: number[] }

/** How much larger than the core laid it out a drawing may be, in pixels to a unit. */
const largest = 1.3

/** FingeringDiagram draws a fingering; the core has laid out every mark, and says which of them move from the note before. */
export function FingeringDiagram({ fingering, height = 84, changes = [] }: Props) {
  const d = fingering.diagram
  const moves = changes.length > 0 ? `${fingering.spoken}; ${changes.length} moves` : fingering.spoken
  return (
    <svg
      viewBox={`0 0 ${d.width} ${d.height}`}
      // A row of valves is no taller for having room.
      height={Math.min(height, d.height * largest)}
      role="img"
      aria-label={moves}
      className="max-w-full"
    >
      {d.marks.map((m, n) => (
        <Drawing key={`${m.shape} ${m.x} ${m.y} ${m.label ?? ''}`} mark={m} lit={changes.includes(n)} />
      ))}
    </svg>
  )
}

/**
 * Drawing knows shapes only. Which holes an instrument has, and where, is the core's
 * table.
 */
function Drawing({ mark: m, lit }: { mark: Mark; lit: boolean }) {
  const colour = lit ? 'var(--warm)' : 'currentColor'
  const line = { fill: m.state === 'closed' ? colour : 'none', stroke: colour, strokeWidth: lit ? 2 : 1 }
  switch (m.shape) {
    case 'bar':
      return <line x1={m.x - m.size} x2={m.x + m.size} y1={m.y} y2={m.y} stroke="currentColor" strokeWidth={0.8} />
    case 'bell':
      return (
        <path
          d={`M${m.x - 5} ${m.y - 5}q5 -2 5 -${m.size - 5}M${m.x - 5} ${m.y + 5}q5 2 5 ${m.size - 5}`}
          fill="none"
          stroke="currentColor"
          strokeWidth={0.8}
        />
      )
    case 'key':
      return (
        <g>
          <rect x={m.x - m.size} y={m.y - m.size / 2} width={2 * m.size} height={m.size} rx={m.size / 2} {...line} />
          {m.label && (
            <text x={m.x + m.size + 2} y={m.y + 2} fontSize={11} fontWeight={600} fill={colour}>
              {m.label}
            </text>
          )}
          {/* Which finger, for whoever has not found the key yet. */}
          {m.finger && (
            <text x={m.x + m.size + 2} y={m.y + 11} fontSize={8.5} fill={colour}>
              {m.finger.replace(' finger', '')}
            </text>
          )}
        </g>
      )
  }
  return (
    <g>
      <circle cx={m.x} cy={m.y} r={m.size} {...line} />
      {m.state === 'half' && (
        <path d={`M${m.x - m.size} ${m.y}a${m.size} ${m.size} 0 0 0 ${2 * m.size} 0z`} fill={colour} />
      )}
      {m.shape === 'stop' && (
        <text x={m.x} y={m.y + 16} fontSize={8} textAnchor="middle" fill={colour}>
          {m.label}
        </text>
      )}
      {m.label && m.shape !== 'hole' && m.shape !== 'stop' && (
        <text
          x={m.x}
          y={m.y + 2.5}
          fontSize={7}
          textAnchor="middle"
          fill={m.state === 'closed' ? 'var(--sheet)' : colour}
        >
          {m.label}
        </text>
      )}
    </g>
  )
}
