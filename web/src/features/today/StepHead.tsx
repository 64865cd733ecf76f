import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import { ChangeStep } from '../step'

type Props = { classId: string; step: Schemas['BoardStep']; players: number }

const order: Result[] = ['clean', 'nearly', 'not-yet', 'cant-tell', 'waiting', 'failed', 'missing']

/** StepHead says a step, counts its results, and opens it for changing. */
export function StepHead({ classId, step, players }: Props) {
  const [changing, setChanging] = useState(false)
  return (
    <>
      <div className="flex items-start justify-between gap-4">
        <p className="font-serif text-lg">{step.sentence}</p>
        <Button onClick={() => setChanging(true)} className="no-print shrink-0">
          Change the step
        </Button>
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-sm" aria-label={`Results of ${players} players`}>
        {order
          .filter((r) => step.results[r])
          .map((r) => (
            <li key={r} className="flex items-center gap-1.5">
              <ResultMark result={r} size={15} />
              {step.results[r]} {resultWords[r]}
            </li>
          ))}
      </ul>
      {changing && <ChangeStep classId={classId} stepId={step.id} onClose={() => setChanging(false)} />}
    </>
  )
}
