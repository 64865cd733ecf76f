import { Link } from 'react-router'
import type { SetUp } from './queries'

/**
 * FirstSteps is the way from a new class to a child's first take: what is done, and what
 * comes next. It goes when somebody has played.
 */
export function FirstSteps({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const { begun } = setUp
  if (begun.played || setUp.archived) return null
  const steps = [
    {
      done: begun.players > 0,
      what: 'Players',
      how: 'Add them one by one, or bring in a list from a spreadsheet.',
      to: `/class/${classId}/set-up?chapter=players`,
    },
    {
      done: setUp.first_lesson !== '',
      what: 'How you teach',
      how: 'The first lesson’s date, tuning, and the questions on which teachers differ. What stands there is usual.',
      to: `/class/${classId}/set-up?chapter=conventions`,
    },
    {
      done: begun.planned,
      what: 'The first week',
      how: 'Add steps from the catalogue, or begin from a week that is ready.',
      to: `/class/${classId}/plan`,
    },
    {
      done: begun.players > 0 && begun.carded === begun.players,
      what: 'Cards',
      how: 'Print a card for each player: class code, name and PIN.',
      to: `/class/${classId}/set-up?chapter=players`,
    },
    {
      done: false,
      what: 'Try it as a player',
      how: 'A player’s page, with a simulated player at the microphone. Nothing of it is kept.',
      to: `/class/${classId}/try/${setUp.players[0]?.instrument ?? 'clarinet'}`,
    },
    {
      done: false,
      what: 'The first take',
      how: 'A player opens the page, types the code and the PIN of the card, and presses Record.',
      to: `/class/${classId}`,
    },
  ]
  const next = steps.find((s) => !s.done)
  return (
    <section aria-label="First steps" className="mb-5 rounded-md border border-rule bg-sheet p-4">
      <h2 className="text-base">First steps</h2>
      <ol className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-2 lg:grid-cols-6">
        {steps.map((s, n) => (
          <li key={s.what} aria-current={s === next ? 'step' : undefined}>
            <p className={s.done ? 'text-soft' : ''}>
              <span aria-hidden className="mr-1 font-serif">
                {s.done ? '✓' : n + 1}
              </span>
              {s === next || !s.done ? <Link to={s.to}>{s.what}</Link> : s.what}
              {s.done && <span className="sr-only"> (done)</span>}
            </p>
            {!s.done && <p className="text-sm text-soft">{s.how}</p>}
          </li>
        ))}
      </ol>
    </section>
  )
}
