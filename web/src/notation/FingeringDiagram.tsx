import type { Schemas } from '../api/client'

/** One hole, key, valve or slide of a fingering, placed by the core. */
type Mark = Schemas['Mark']
/**
 * height is in pixels; changes are the marks that differ from the fingering beside it,
 * which are lit.
 */
type Props = { fingering: Schemas['Fingering']; height?: number; changes?: number[] }

/** FingeringDiagram draws a fingering; the core has laid out every mark, and says which of them move from the note before. */
export function FingeringDiagram({ fingering, height = 84, changes = [] }: Props) {
  const d = fingering.diagram
  const moves = changes.length > 0 ? `${fingering.spoken}; ${changes.length} moves` : fingering.spoken
  return (
    <svg viewBox={`0 0 ${d.width} ${d.height}`} height={height} role="img" aria-label={moves}>
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
    case 'key':
      return (
        <g>
          <rect x={m.x - m.size} y={m.y - m.size / 2} width={2 * m.size} height={m.size} rx={m.size / 2} {...line} />
          {m.label && (
            <text x={m.x + m.size + 2} y={m.y + 2} fontSize={6} fill={colour}>
              {m.label}
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
      {m.label && m.shape !== 'hole' && (
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
