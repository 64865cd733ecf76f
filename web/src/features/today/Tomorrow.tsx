import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { answer, api } from '../../api/client'
import { Button, buttonClass } from '../../ui/Button'
import { clock } from '../../ui/clock'
import { mondayOf, weekdayOf } from '../../ui/days'
import { Problem } from '../../ui/Problem'

/** Tomorrow is the next school day's minutes in class as they could be, with reasons; one press plans them. */
export function Tomorrow({ classId }: { classId: string }) {
  const queries = useQueryClient()
  const path = { class: classId }
  const key = ['tomorrow', classId]
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET('/classes/{class}/tomorrow', { params: { path } })),
    // The proposal is worked out from the week's takes; one more take rarely moves it.
    staleTime: 60_000,
  })
  const plan = useMutation({
    mutationFn: () => answer(api.POST('/classes/{class}/tomorrow', { params: { path } })),
    onSuccess: (planned) => {
      // The answer is the proposal anew, with nothing left to propose.
      queries.setQueryData(key, planned)
      void queries.invalidateQueries({ queryKey: ['plan'] })
    },
  })
  if (!data) return null
  // Only what is new is listed in full: the director knows what stands in the plan.
  const fresh = data.steps.filter((s) => s.new)
  // Noon, so that no time zone moves the day.
  const day = new Date(`${data.day}T12:00`).toLocaleDateString(undefined, { weekday: 'long' })
  return (
    <div className="no-print">
      <p className="float-right">
        <a
          className={buttonClass()}
          href={`/api/classes/${classId}/plans/${mondayOf(data.day)}/print.pdf?day=${weekdayOf(data.day)}&at=class`}
          target="_blank"
          rel="noreferrer"
        >
          Print {day}
        </a>
      </p>
      <details>
        <summary className="min-h-9 cursor-pointer font-serif text-lg">
          {day}: {clock(data.total_s)} of {data.minutes} minutes{' '}
          <span className="font-sans text-sm text-soft">
            {fresh.length === 0
              ? 'as planned'
              : `${fresh.length} of ${data.steps.length} steps proposed: look, then take them or not`}
          </span>
        </summary>
        <ol className="mt-1 text-sm">
          {fresh.map((s) => (
            <li key={s.sentence} className="border-l-4 border-warm pl-2" title={s.sentence}>
              {s.name} <span className="text-soft">{s.reason}</span>
            </li>
          ))}
        </ol>
        <p className="mt-1 text-sm text-soft">
          With what is planned:{' '}
          {data.steps
            .filter((s) => !s.new)
            .map((s) => s.name)
            .join(', ') || 'nothing yet'}
          .
        </p>
        {data.left_out.length > 0 && (
          <p className="mt-1 text-sm text-soft">Left out to make room: {data.left_out.join(', ')}.</p>
        )}
        {/* What would help and does not fit is said too: the minutes are the director's to change. */}
        {data.unfit.map((u) => (
          <p key={u.name} className="mt-1 text-sm">
            {u.name} would help <span className="text-soft">({u.reason.replace(/\.$/, '')})</span>, but does not fit:{' '}
            {u.why}.
          </p>
        ))}
        {plan.error && <Problem error={plan.error} />}
        <p className="mt-2 flex flex-wrap items-center gap-4">
          {/* Nothing goes into the plan by itself. */}
          {fresh.length > 0 && (
            <Button look="main" disabled={plan.isPending} onClick={() => plan.mutate()}>
              Put it into the plan
            </Button>
          )}
          <Link className="text-sm underline" to={`/class/${classId}/plan/${mondayOf(data.day)}`}>
            Open the plan
          </Link>
        </p>
      </details>
    </div>
  )
}
