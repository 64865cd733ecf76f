import { useQuery } from '@tanstack/react-query'
import { shortDay } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { careQuery } from './queries'

/** ClassCare is whose instruments need looking after, as the players said themselves. */
export function ClassCare({ classId }: { classId: string }) {
  const { data, error } = useQuery(careQuery(classId))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Asking whose instruments need care" />
  return (
    <section aria-label="Care">
      <p className="max-w-prose text-soft">
        Players say on their own page when they have looked after their instruments. Something is due for{' '}
        {data.players.length} of {data.count}.
      </p>
      {data.players.length > 0 && (
        <div className="mt-3 overflow-x-auto">
          <table className="w-full border-collapse text-sm">
            <thead>
              <tr className="border-b border-ink text-left text-soft">
                <th scope="col" className="py-1 font-normal">
                  Player
                </th>
                <th scope="col" className="font-normal">
                  Instrument
                </th>
                <th scope="col" className="font-normal">
                  Due
                </th>
              </tr>
            </thead>
            <tbody>
              {data.players.map((p) => (
                <tr key={p.player_id} className="border-b border-rule align-top">
                  <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                    {p.player}
                  </th>
                  <td className="py-1.5 pr-3">{p.instrument}</td>
                  <td className="py-1.5">{p.due.map((d) => `${d.name} (since ${shortDay(d.due)})`).join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}
