import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import type { ShownStep } from './overlay'

/** The list is the day; now is the step in hand. */
type Props = { steps: ShownStep[]; now: ShownStep; onGo: (step: ShownStep) => void }

/** StepList is the day's steps in order, each with how it stands. */
export function StepList({ steps, now, onGo }: Props) {
  const clean = steps.filter((s) => s.result === 'clean').length
  return (
    <nav aria-label="Today's steps" className="mt-2">
      <ol className="flex flex-wrap gap-1.5">
        {steps.map((s, n) => {
          const result: Result = s.result ?? 'missing'
          return (
            <li key={s.id}>
              <button
                type="button"
                aria-current={s.id === now.id ? 'step' : undefined}
                aria-label={`Step ${n + 1}, ${s.name}: ${resultWords[result]}`}
                className="flex min-h-11 items-center gap-2 rounded-md border border-edge bg-sheet px-3 aria-[current]:border-2 aria-[current]:border-warm"
                onClick={() => onGo(s)}
              >
                <span className="font-serif">{n + 1}</span>
                <ResultMark result={result} size={16} />
              </button>
            </li>
          )
        })}
      </ol>
      <p className="mt-1 text-sm text-soft">
        {clean} of {steps.length} clean today
      </p>
    </nav>
  )
}
