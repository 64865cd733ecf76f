import { queryOptions, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { answer, api } from '../../api/client'
import { Problem } from '../../ui/Problem'

/** toneQuery is asked for beside the section's notes, which do not wait for it. */
const toneQuery = (classId: string, section: string) =>
  queryOptions({
    queryKey: ['section-tone', classId, section],
    queryFn: () =>
      answer(api.GET('/classes/{class}/sections/{section}/tone', { params: { path: { class: classId, section } } })),
  })

/** SectionTone is how each player's tone went, in the order of the list: each against their own, nobody above another. */
export function SectionTone({ classId, section }: { classId: string; section: string }) {
  const { data, error } = useQuery(toneQuery(classId, section))
  return (
    <section className="mt-8">
      <h2>Tone</h2>
      <p className="mt-1 text-sm text-soft">
        {`Each player against their own earlier takes of the same notes, on one microphone and in one room${data ? `, over ${data.weeks} weeks` : ''}. Never one against another.`}
      </p>
      {error && <Problem error={error} />}
      <ul className="mt-2 max-w-3xl">
        {data?.players.map((p) => (
          <li key={p.id} className="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
            <Link className="w-52 shrink-0 underline decoration-edge" to={`/class/${classId}/player/${p.id}`}>
              {p.name}
            </Link>
            <span className={p.tone.turns.some((t) => t.trend?.clear) ? 'font-semibold' : 'text-soft'}>
              {p.tone.says}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
