import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { ChangeStep } from '../step'

type Props = { classId: string; step: Schemas['BoardStep']; players: number; dense: boolean }

const order: Result[] = ['clean', 'nearly', 'not-yet', 'cant-tell', 'waiting', 'failed', 'missing']

/** StepHead says a step, counts its results, and opens it for changing. */
export function StepHead({ classId, step, players, dense }: Props) {
  const [changing, setChanging] = useState(false)
  return (
    <>
      {dense ? (
        <button
          type="button"
          title={step.sentence}
          aria-label={`${step.name}: change the step`}
          className="min-h-10 text-left font-serif leading-tight underline decoration-edge underline-offset-4"
          onClick={() => setChanging(true)}
        >
          {step.name}
        </button>
      ) : (
        <div className="flex items-start justify-between gap-4">
          <p className="font-serif text-lg">{step.sentence}</p>
          <Button onClick={() => setChanging(true)} className="no-print shrink-0">
            Change the step
          </Button>
        </div>
      )}
      <ul
        className={`mt-2 flex flex-wrap gap-y-1 text-sm ${dense ? 'gap-x-2.5' : 'gap-x-6'}`}
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
      {changing && <ChangeStep classId={classId} stepId={step.id} onClose={() => setChanging(false)} />}
    </>
  )
}
