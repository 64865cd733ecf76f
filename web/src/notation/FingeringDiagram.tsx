import type { Schemas } from '../api/client'

type Mark = Schemas['Mark']

/** FingeringDiagram draws a fingering; the core has laid out every mark. */
export function FingeringDiagram({ fingering, height = 84 }: { fingering: Schemas['Fingering']; height?: number }) {
  const d = fingering.diagram
  return (
    <svg viewBox={`0 0 ${d.width} ${d.height}`} height={height} role="img" aria-label={fingering.text}>
      {d.marks.map((m) => (
        <Drawing key={`${m.shape} ${m.x} ${m.y} ${m.label ?? ''}`} mark={m} />
      ))}
    </svg>
  )
}

function Drawing({ mark: m }: { mark: Mark }) {
  const fill = m.state === 'closed' ? 'currentColor' : 'none'
  const line = { fill, stroke: 'currentColor', strokeWidth: 1 }
  switch (m.shape) {
    case 'bar':
      return <line x1={m.x - m.size} x2={m.x + m.size} y1={m.y} y2={m.y} stroke="currentColor" strokeWidth={0.8} />
    case 'key':
      return (
        <g>
          <rect x={m.x - m.size} y={m.y - m.size / 2} width={2 * m.size} height={m.size} rx={m.size / 2} {...line} />
          {m.label && (
            <text x={m.x + m.size + 2} y={m.y + 2} fontSize={6} fill="currentColor">
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
        <path d={`M${m.x - m.size} ${m.y}a${m.size} ${m.size} 0 0 0 ${2 * m.size} 0z`} fill="currentColor" />
      )}
      {m.label && m.shape !== 'hole' && (
        <text
          x={m.x}
          y={m.y + 2.5}
          fontSize={7}
          textAnchor="middle"
          fill={m.state === 'closed' ? 'var(--sheet)' : 'currentColor'}
        >
          {m.label}
        </text>
      )}
    </g>
  )
}
