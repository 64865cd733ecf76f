import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { buttonClass } from '../../ui/Button'
import { longDay, mondayOf, shortDay } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { Select } from '../../ui/Select'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { useClassName } from '../class/useClassName'
import { testQuery } from './queries'

type Row = Schemas['TestRow']

/** Who is shown: everybody, who has not handed in, or one result. */
const shown: { value: string; label: string; is: (r: Row) => boolean }[] = [
  { value: 'all', label: 'everybody', is: () => true },
  { value: 'missing', label: 'who has not handed in', is: (r) => r.used === 0 && !r.excused },
  ...(['clean', 'nearly', 'not-yet', 'cant-tell'] as const).map((result) => ({
    value: result,
    label: resultWords[result],
    is: (r: Row) => r.result === result,
  })),
]

/** TestPage is a test's results: who has handed in, and how it went. */
export function TestPage() {
  const { classId = '', stepId = '' } = useParams()
  const { data, error } = useQuery(testQuery(classId, stepId))
  const name = useClassName(classId)
  const [who, setWho] = useState('all')
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the test" />
  const choice = shown.find((s) => s.value === who)
  const rows = data.players.filter((r) => choice?.is(r))
  return (
    <>
      <ClassHead classId={classId} name={name} at="none" />
      <header className="flex flex-wrap items-start justify-between gap-4 border-t border-ink pt-4">
        <div>
          <h2 className="text-2xl">Test: {data.name}</h2>
          <p>{data.sentence}</p>
          <p className="text-soft">
            {data.over ? 'Was due' : 'Due'} {longDay(data.due)} · {data.takes} {data.takes === 1 ? 'take' : 'takes'}{' '}
            count, the {data.counts} is the result · {data.handed_in} of {data.of} handed in
          </p>
        </div>
        <p className="no-print flex gap-3">
          <a className={buttonClass()} href={`/api/classes/${classId}/tests/${stepId}/results.csv`} download>
            Results (CSV)
          </a>
          <Link className={buttonClass()} to={`/class/${classId}/plan/${mondayOf(data.due)}?step=${stepId}`}>
            Change the test
          </Link>
        </p>
      </header>
      <div className="no-print mt-4">
        <Select
          label="Show"
          showLabel
          value={who}
          onChange={setWho}
          options={shown.map((s) => ({ value: s.value, label: `${s.label} (${data.players.filter(s.is).length})` }))}
        />
      </div>
      <Results rows={rows} takes={data.takes} due={data.due} />
    </>
  )
}

/** Results are the players, each with the result and the takes it comes from. */
function Results({ rows, takes, due }: { rows: Row[]; takes: number; due: string }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a box that is pushed along is reached by the keyboard
    <section aria-label="Results" tabIndex={0} className="mt-3 overflow-x-auto">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-y border-ink text-left text-sm text-soft">
            {['Player', 'Section', 'Result', 'Takes'].map((h) => (
              <th key={h} scope="col" className="py-2 pr-4 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.player_id} className="border-b border-rule" data-player={r.name}>
              <th scope="row" className="py-2 pr-4 text-left font-normal">
                {r.name}
              </th>
              <td className="pr-4 text-soft">{r.section}</td>
              <td className="pr-4">
                <ResultOf row={r} />
              </td>
              <td>
                <ul className="flex flex-wrap gap-x-3">
                  {r.takes.map((t, n) => (
                    <li key={t.id}>
                      <Link className="inline-flex min-h-9 items-center gap-1 underline" to={`/take/${t.id}`}>
                        <ResultMark result={t.result ?? 'waiting'} size={14} silent />
                        {shortDay(t.day)}
                        <span className="sr-only">, {resultWords[t.result ?? 'waiting']}</span>
                      </Link>
                      {t.id === r.take && <span className="text-xs text-soft"> counts</span>}
                      {(n >= takes || t.day > due) && <span className="text-xs text-soft"> practice</span>}
                    </li>
                  ))}
                </ul>
              </td>
            </tr>
          ))}
          {rows.length === 0 && (
            <tr>
              <td colSpan={4} className="py-6 text-soft">
                Nobody. Choose “everybody” to see the whole class.
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </section>
  )
}

/** ResultOf is a player's result, or why there is none. */
function ResultOf({ row }: { row: Row }) {
  if (row.result)
    return (
      <span className="flex items-center gap-2">
        <ResultMark result={row.result as Result} silent /> {resultWords[row.result as Result]}
      </span>
    )
  if (row.waits) return <span className="text-soft">being listened to</span>
  if (row.late) return <span>played after the day only</span>
  if (row.excused) return <span className="text-soft">excused</span>
  return <span className="text-not-yet">not handed in</span>
}
