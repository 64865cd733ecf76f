import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { choicesQuery, useChooseClass } from './queries'

/** WhichClass asks a player who signed on, and is in several classes, where to go. */
export function WhichClass() {
  const { data, error } = useQuery(choicesQuery)
  const choose = useChooseClass()
  if (error) return <Problem error={error} />
  if (!data) return <Waiting />
  return (
    <div className="mx-auto max-w-md pt-8 sm:pt-16">
      <h1 className="text-2xl">Which class now?</h1>
      <ul className="mt-4 space-y-2">
        {data.classes.map((c) => (
          <li key={c.player}>
            <button
              type="button"
              disabled={choose.isPending}
              onClick={() => choose.mutate(c.player)}
              className="min-h-14 w-full rounded-md border border-rule bg-sheet px-3 py-2 text-left hover:border-warm"
            >
              <span className="block">{c.class}</span>
              <span className="block text-sm text-soft">{c.instrument}</span>
            </button>
          </li>
        ))}
      </ul>
      {data.classes.length === 0 && (
        <p className="mt-4">
          This has run out.{' '}
          <Link to="/sign-in" className="underline">
            Sign in again
          </Link>
        </p>
      )}
      {choose.error && <Problem error={choose.error} />}
    </div>
  )
}
