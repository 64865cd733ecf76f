import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { longDay } from '../../ui/days'
import { testsQuery } from './queries'

/** TestLines are a class's tests: when each is due, and how many have handed it in. */
export function TestLines({ classId }: { classId: string }) {
  const { data } = useQuery(testsQuery(classId))
  if (!data || data.tests.length === 0) return null
  return (
    <section aria-label="Tests" className="no-print border-t border-rule py-3">
      <ul className="space-y-1">
        {data.tests.map((t) => (
          <li key={t.step_id} className="flex flex-wrap items-baseline gap-x-3">
            <Link className="min-h-6 font-serif text-lg underline" to={`/class/${classId}/test/${t.step_id}`}>
              Test: {t.name}
            </Link>
            <span>
              {t.over ? 'was due' : 'due'} {longDay(t.due)}
            </span>
            <span className="text-soft">
              {t.handed_in} of {t.of} handed in
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
