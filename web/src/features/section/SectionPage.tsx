import { queryOptions, useQuery } from '@tanstack/react-query'
import { Link, useParams, useSearchParams } from 'react-router'
import { answer, api, type Schemas } from '../../api/client'
import { longDay } from '../../ui/days'
import { PrintButton } from '../../ui/PrintButton'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { NoteMap } from './NoteMap'
import { SectionTone } from './SectionTone'

/** sectionQuery looks so many days back from the school's today. */
const sectionQuery = (classId: string, section: string, days: number) =>
  queryOptions({
    queryKey: ['section', classId, section, days],
    queryFn: () =>
      answer(
        api.GET('/classes/{class}/sections/{section}', {
          params: { path: { class: classId, section }, query: { days } },
        }),
      ),
    // The map before stays in view while another span is counted: nothing jumps.
    placeholderData: (before) => before,
  })

/** How far back a director looks: a week to plan, a year to report. */
const spans = [
  { days: 7, says: '7 days' },
  { days: 14, says: '14 days' },
  { days: 30, says: '30 days' },
  { days: 90, says: '90 days' },
  { days: 370, says: 'year' },
]

/** SectionPage is a section's notes in order, and who stands on which rung. */
export function SectionPage() {
  const { classId = '', section = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  // Two weeks hold enough takes for a note to be judged and little enough to be this month's
  // playing.
  const days = Number(search.get('days') ?? 14)
  const { data, error } = useQuery(sectionQuery(classId, section, days))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Counting the notes" />
  return (
    <>
      <ClassHead classId={classId} name={data.class.name} at="none" />
      <nav aria-label="Sections" className="flex flex-wrap gap-x-5 gap-y-1 border-t border-ink pt-3">
        {data.sections.map((s) => (
          <Link
            key={s}
            to={`/class/${classId}/section/${encodeURIComponent(s)}?days=${days}`}
            aria-current={s === data.section ? 'page' : undefined}
            className="border-b-2 border-transparent font-serif text-lg aria-[current]:border-warm"
          >
            {s}
          </Link>
        ))}
        <span className="ml-auto">
          <PrintButton />
        </span>
        <label className="text-sm text-soft">
          the last{' '}
          <select
            className="min-h-9 rounded-md border border-edge bg-sheet px-2 text-ink"
            value={days}
            // The span stands in the address, so that a colleague who is sent it sees the same.
            onChange={(e) => setSearch({ days: e.target.value })}
          >
            {spans.map((d) => (
              <option key={d.days} value={d.days}>
                {d.says}
              </option>
            ))}
          </select>
        </label>
      </nav>
      <p className="mt-2 text-soft">
        {data.section}, {longDay(data.from)} to {longDay(data.to)}
      </p>
      {data.maps.map((m) => (
        <NoteMap key={m.instrument} map={m} />
      ))}
      {data.ladders.map((l) => (
        <Rungs key={l.name} ladder={l} classId={classId} />
      ))}
      <SectionTone classId={classId} section={data.section} />
      <section className="mt-8">
        <h2>Players</h2>
        <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
          {data.players.map((p) => (
            <li key={p.id}>
              <Link
                className="inline-flex min-h-9 items-center underline decoration-edge"
                to={`/class/${classId}/player/${p.id}`}
              >
                {p.name}
              </Link>
            </li>
          ))}
        </ul>
      </section>
    </>
  )
}

/** Rungs is who stands where on a ladder, the top up. */
function Rungs({ ladder, classId }: { ladder: Schemas['LadderStanding']; classId: string }) {
  return (
    <section className="mt-8">
      <h2>{ladder.name}</h2>
      <ol className="mt-2 max-w-3xl border-l-2 border-edge">
        {ladder.on.map((r) => (
          <li key={r.rung} className="flex gap-4 border-b border-rule py-1.5 pl-3">
            <span className="w-52 shrink-0">
              <span className="font-serif">{r.rung}</span> <span className="text-soft">{r.text}</span>
            </span>
            <span className="flex flex-wrap gap-x-4">
              {r.players.map((p) => (
                <Link key={p.id} className="underline decoration-edge" to={`/class/${classId}/player/${p.id}`}>
                  {p.name}
                  {/* Stuck is the core's word: several tries on one rung, and none of them clean. */}
                  {p.stuck && <span className="text-not-yet"> · stuck</span>}
                </Link>
              ))}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-sm text-soft">of {ladder.rungs.length} rungs</p>
    </section>
  )
}
