import { queryOptions, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '../../api/client'
import { buttonClass } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { Days } from './Days'
import { GrowthLine } from './GrowthLine'
import { Ladders } from './Ladders'
import { Said } from './Said'

/** mine is how the signed-in player has grown. */
const mine = queryOptions({ queryKey: ['my-growth'], queryFn: () => answer(api.GET('/practice/growth')) })

/** MyProgress is a player's own: days practiced, longest notes, ladders, and what the director said. No other child is in it. */
export function MyProgress() {
  const { data, error } = useQuery(mine)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Looking back" />
  const holds = data.weeks
    .filter((w) => w.best_hold_s > 0)
    .map((w) => ({ monday: w.monday, value: w.best_hold_s, takes: [] }))
  const best = Math.max(0, ...holds.map((h) => h.value))
  return (
    <div className="mx-auto max-w-2xl">
      <h1 className="text-2xl">My progress</h1>
      <p className="mt-2 text-lg">
        {data.days.length === 0 && 'Record your first long tone. Then it begins to grow here.'}
        {data.days.length === 1 && 'You practiced on one day. That is how it starts!'}
        {data.days.length > 1 && `You practiced on ${data.days.length} days in the last twelve weeks.`}
        {best > 0 && ` Your longest note lasted ${Math.round(best)} seconds.`}
      </p>
      <Days days={data.days} />
      {holds.length > 0 && (
        <div className="mt-6">
          <GrowthLine title="My longest note" unit="seconds, in one breath" says="" points={holds} />
        </div>
      )}
      <OwnNotes notes={data.notes} />
      <div className="mt-8">
        <Ladders ladders={data.ladders} from={data.weeks[0]?.monday} to={data.today} />
      </div>
      {data.tone.turns.length > 0 && <p className="mt-8 text-lg">{data.tone.says}</p>}
      <div className="mt-8">
        <Said comments={data.comments} />
      </div>
      <p className="mt-8">
        <Link to="/practice" className={buttonClass('main', 'large')}>
          Back to practicing
        </Link>
      </p>
    </div>
  )
}

/** OwnNotes are the notes one can play, and those still on the way; each by name, none of them a grade. */
function OwnNotes({ notes }: { notes: Schemas['GrowthNote'][] }) {
  const mine = notes.filter((n) => n.comes)
  const onTheWay = notes.filter((n) => !n.comes)
  if (notes.length === 0) return null
  return (
    <section className="mt-8">
      <h2>Notes I can play</h2>
      <NoteNames notes={mine} look="border-clean" none="Your first one comes soon." />
      {onTheWay.length > 0 && (
        <>
          <h2 className="mt-4">On the way</h2>
          <NoteNames notes={onTheWay} look="border-edge" none="" />
        </>
      )}
    </section>
  )
}

function NoteNames({ notes, look, none }: { notes: Schemas['GrowthNote'][]; look: string; none: string }) {
  if (notes.length === 0) return <p className="mt-1 text-soft">{none}</p>
  return (
    <ul className="mt-2 flex flex-wrap gap-2">
      {notes.map((n) => (
        <li key={n.sounding_midi} className={`rounded-md border-2 ${look} bg-sheet px-3 py-1 font-serif text-lg`}>
          {n.called}
        </li>
      ))}
    </ul>
  )
}
