import type { TakeDetail } from './queries'

/** Usual spreads drawn to each side. */
const reach = 4
/** Units of the drawing: as wide as the text beside it is long. */
const width = 160
const height = 18

/** Tone is the take's tone beside the player's own of the weeks before: where it lies in the usual spread. */
export function Tone({ take }: { take: TakeDetail }) {
  const tone = take.tone
  if (!tone) return null
  return (
    <section>
      <h2>Tone</h2>
      <p className="mt-1">{tone.says}</p>
      {tone.changes.length > 0 && (
        <table className="mt-2 w-full border-collapse text-sm">
          <thead className="sr-only">
            <tr>
              <th scope="col">Quality</th>
              <th scope="col">Against the usual spread</th>
              <th scope="col">In words</th>
            </tr>
          </thead>
          <tbody>
            {tone.changes.map((c) => (
              <tr key={c.quality} className="border-t border-rule">
                <th scope="row" className="w-40 py-1.5 pl-2 text-left font-normal text-soft">
                  {c.label}
                </th>
                <td className="w-44">
                  <Lie spreads={c.spreads} />
                </td>
                <td className="py-1.5">
                  <span className={c.sure ? 'font-semibold' : ''}>{c.word}</span>{' '}
                  <span className="text-soft">{c.text}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}

/** Lie is where the take lies: the band is the player's usual spread, the stroke this take. The row says it in words. */
function Lie({ spreads }: { spreads: number }) {
  const x = (v: number) => width / 2 + (Math.max(-reach, Math.min(reach, v)) / reach) * (width / 2 - 4)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} aria-hidden className="max-w-full">
      <path d={`M4 ${height / 2}H${width - 4}`} stroke="var(--rule)" />
      <rect x={x(-1)} y="3" width={x(1) - x(-1)} height={height - 6} fill="var(--band)" />
      <path d={`M${x(spreads)} 1V${height - 1}`} stroke="var(--ink)" strokeWidth="3" />
    </svg>
  )
}
