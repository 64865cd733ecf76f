import { Link } from 'react-router'
import { useRights } from '../signin'
import { ClassName } from './ClassName'

/**
 * school is left out where the page says it elsewhere; at is the page one is on, so that
 * its own link is not offered.
 */
type Props = { classId: string; name: string; school?: string; at: 'today' | 'listen' | 'plan' | 'class' | 'none' }

/**
 * The four pages of a class, in the order of a director's day: look, listen, plan, and,
 * rarely, set up.
 */
const pages = [
  { key: 'today', label: 'Today', path: '' },
  { key: 'listen', label: 'Listen', path: '/listen' },
  { key: 'plan', label: 'Plan', path: '/plan' },
  { key: 'class', label: 'Class', path: '/set-up' },
] as const

/** ClassHead names the class and leads to its pages. */
export function ClassHead({ classId, name, school, at }: Props) {
  const { directs } = useRights()
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 pb-4">
      <div>
        {school && <p className="text-sm text-soft">{school}</p>}
        <ClassName classId={classId} name={name} path={pages.find((p) => p.key === at)?.path ?? ''} />
      </div>
      {directs && (
        <nav aria-label="The class" className="no-print flex gap-5 font-serif text-lg">
          {pages.map((r) => (
            <Link
              key={r.key}
              to={`/class/${classId}${r.path}`}
              aria-current={r.key === at ? 'page' : undefined}
              className="border-b-2 border-transparent pb-1 no-underline hover:border-edge aria-[current]:border-warm"
            >
              {r.label}
            </Link>
          ))}
        </nav>
      )}
    </div>
  )
}
