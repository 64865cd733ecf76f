import type { Schemas } from '../../api/client'
import { targetsOf } from '../../api/score'

/** WrittenTable shows what each instrument reads, and what was put elsewhere. */
type Props = { written: Schemas['WrittenStep'][]; leftOut: string[] }

/** WrittenTable is one step for the whole band: who reads what, and who is left out. */
export function WrittenTable({ written, leftOut }: Props) {
  return (
    <table className="w-full border-collapse text-sm">
      <caption className="pb-2 text-left font-serif text-lg">
        What each instrument reads
        {leftOut.length > 0 && <span className="block font-sans text-sm text-soft">Not for {leftOut.join(', ')}.</span>}
      </caption>
      <thead>
        <tr className="border-b border-ink text-left text-soft">
          <th scope="col" className="py-1 font-normal">
            Instrument
          </th>
          <th scope="col" className="font-normal">
            Written
          </th>
          <th scope="col" className="font-normal">
            Fingering
          </th>
        </tr>
      </thead>
      <tbody>
        {written.map(({ instrument, score }) => {
          const targets = targetsOf(score)
          return (
            <tr key={instrument} className="border-b border-rule align-top">
              <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                {instrument}
                {score.notices.map((n) => (
                  <span key={n} className="block text-xs text-soft">
                    {n}
                  </span>
                ))}
              </th>
              <td className="py-1.5 pr-3 font-serif whitespace-nowrap">
                {targets.map((t) => `${t.written_name}${t.hard ? ' (hard)' : ''}`).join(', ')}
              </td>
              <td className="py-1.5">{targets.map((t) => t.fingering?.text ?? 'see the chart').join('; ')}</td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
