import { useState } from 'react'
import { Button } from '../../ui/Button'
import { LessonCards } from '../../ui/LessonCards'
import { Problem } from '../../ui/Problem'
import type { ShownStep } from './overlay'
import { ReadAloud } from './ReadAloud'
import { AllDone } from './StepPage'
import { Cautions } from './StepSheet'
import { useTick } from './useTick'

/** onNext is left out on the last step of the day. */
type Props = { step: ShownStep; onNext?: () => void }

/** TickList is a step that is done and ticked, not recorded. */
export function TickList({ step, onNext }: Props) {
  const tick = useTick(step)
  const [finished, setFinished] = useState(false)
  // What was pressed here counts at once: the device takes a moment to keep a tick, and a
  // second one that was worked out from the old list would undo the first.
  const [own, setOwn] = useState<boolean[]>()
  if (finished) return <AllDone onAgain={() => setFinished(false)} />
  const ticked = own ?? step.ticked
  const all = ticked.every(Boolean)
  const toggle = (n: number) => {
    const next = ticked.map((done, k) => (k === n ? !done : done))
    setOwn(next)
    tick.mutate(next, { onError: () => setOwn(undefined) })
  }
  return (
    <section aria-label="Your step">
      <h1 className="mt-3">{step.name}</h1>
      {step.task && <p className="mt-1 font-serif text-lg leading-snug">{step.task.sentence}</p>}
      <p className="text-soft">{step.why}</p>
      <LessonCards items={step.score.items} pictures={step.score.pictures} done={ticked} onTick={toggle} />
      {tick.error && <Problem error={tick.error} />}
      <Cautions texts={step.score.cautions} />
      <ReadAloud texts={[step.name, step.why, ...step.score.items, ...step.score.cautions]} />
      <p className="mt-6">
        <Button look={all ? 'main' : 'plain'} size="large" data-key="n" onClick={onNext ?? (() => setFinished(true))}>
          {onNext ? 'Next step' : 'Done'}
        </Button>
      </p>
    </section>
  )
}
