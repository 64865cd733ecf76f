import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { buttonClass } from '../../ui/Button'
import { mondayOf } from '../../ui/days'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'

/** players is how many the step is for, against which its results are counted; changes offers to change it. */
type Props = {
  classId: string
  day: string
  step: Schemas['BoardStep']
  players: number
  dense: boolean
  changes: boolean
}

/** The order in which a column's results stand under its name. */
const order: Result[] = ['clean', 'nearly', 'not-yet', 'cant-tell', 'waiting', 'failed', 'missing']

/** StepName says a step, and leads to where it is changed. */
export function StepName({ classId, day, step, dense, changes }: Omit<Props, 'players'>) {
  const change = `/class/${classId}/plan/${mondayOf(day)}?step=${step.id}`
  if (!dense) {
    return (
      <div className="flex items-start justify-between gap-4">
        <p className="font-serif text-lg">{step.sentence}</p>
        {changes && (
          <Link to={change} className={`${buttonClass()} no-print shrink-0`}>
            Change the step
          </Link>
        )}
      </div>
    )
  }
  if (!changes) {
    return (
      <p className="font-serif leading-tight" title={step.sentence}>
        {step.name}
      </p>
    )
  }
  return (
    <Link
      to={change}
      title={step.sentence}
      aria-label={`${step.name}: change the step`}
      className="flex min-h-10 items-center font-serif leading-tight hyphens-auto decoration-edge underline-offset-4"
    >
      {step.name}
    </Link>
  )
}

/** StepResults counts how a step went. */
export function StepResults({ step, players, dense }: Pick<Props, 'step' | 'players' | 'dense'>) {
  return (
    <ul
      className={`flex flex-wrap gap-y-1 text-sm ${dense ? 'gap-x-2.5' : 'gap-x-6'}`}
      aria-label={`Results of ${players} players`}
    >
      {order
        .filter((r) => step.results[r])
        .map((r) => (
          <li key={r} className="flex items-center gap-1.5">
            <ResultMark result={r} size={15} />
            {step.results[r]} {dense ? <span className="sr-only">{resultWords[r]}</span> : resultWords[r]}
          </li>
        ))}
    </ul>
  )
}
