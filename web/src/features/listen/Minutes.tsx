import { Button } from '../../ui/Button'
import { clock } from '../../ui/clock'
import { Problem } from '../../ui/Problem'
import { useChooseAfresh } from './queries'
import type { Session } from './useListening'

/** Minutes a director has between two things (common practice, no published source). */
const choices = [3, 5, 10, 15]

/** Minutes is how long there is, how much of it is left, and the choice of another length. */
export function Minutes({ classId, session }: { classId: string; session: Session }) {
  const choose = useChooseAfresh(classId)
  const { listening, spent } = session
  const left = 60 * listening.minutes - spent
  return (
    <div className="no-print">
      <p className="font-serif text-xl tabular-nums" data-testid="time-left">
        {session.excerpt ? (
          <>
            {clock(Math.max(0, left))}
            <span className="ml-2 text-base text-soft">{left >= 0 ? 'left' : `over by ${clock(-left)}`}</span>
          </>
        ) : (
          <>
            {clock(spent)}
            <span className="ml-2 text-base text-soft">of {listening.minutes} minutes used</span>
          </>
        )}
      </p>
      <p className="sr-only" role="status">
        {session.excerpt && `${Math.round(left / 60)} minutes left`}
      </p>
      <fieldset className="mt-2 flex flex-wrap items-center gap-1.5">
        <legend className="text-sm text-soft">I have</legend>
        {choices.map((m) => (
          <Button
            key={m}
            aria-pressed={m === listening.minutes}
            className="min-w-11 px-2 aria-pressed:border-2 aria-pressed:border-warm"
            disabled={choose.isPending}
            onClick={() => choose.mutate(m)}
          >
            {m}
          </Button>
        ))}
        <span className="text-sm text-soft">minutes</span>
      </fieldset>
      {choose.error && <Problem error={choose.error} />}
    </div>
  )
}
