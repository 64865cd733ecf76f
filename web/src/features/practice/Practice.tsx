import { useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { FromDirector } from './FromDirector'
import { MeterRoom } from './MeterRoom'
import { type PracticeStep, practiceQuery } from './queries'
import { Room } from './Room'
import { StepList } from './StepList'
import { TickRoom } from './TickRoom'
import { TodaysTakes } from './TodaysTakes'

/** Practice is the player's page: one thing to do, and what came of it. */
export function Practice() {
  const { data, error } = useQuery(practiceQuery)
  const [search, setSearch] = useSearchParams()
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening your music" />
  const step = data.steps.find((s) => s.id === search.get('step')) ?? firstOpen(data.steps)
  const next = step && data.steps[data.steps.indexOf(step) + 1]
  const go = (to: PracticeStep) => setSearch({ step: to.id })
  return (
    <div className="mx-auto max-w-2xl">
      <p className="text-soft">{data.instrument}</p>
      {data.steps.length > 1 && step && <StepList steps={data.steps} now={step} onGo={go} />}
      {!step && <p className="mt-6 text-lg">Nothing is set for today. Play something you like.</p>}
      {step?.score.ticked && (
        <TickRoom key={`${step.id}/${step.version}`} step={step} onNext={next && (() => go(next))} />
      )}
      {step?.score.metered && (
        <MeterRoom
          key={`${step.id}/${step.version}`}
          step={step}
          blowers={data.blowers}
          onNext={next && (() => go(next))}
        />
      )}
      {step && !step.score.ticked && !step.score.metered && (
        <Room
          key={`${step.id}/${step.version}`}
          step={step}
          standIns={data.stand_ins}
          onNext={next && (() => go(next))}
        />
      )}
      {step && <TodaysTakes takes={step.takes} />}
      <FromDirector comments={data.comments} />
    </div>
  )
}

/** firstOpen is the first step that is not clean yet, or the first. */
function firstOpen(steps: PracticeStep[]): PracticeStep | undefined {
  return steps.find((s) => s.result !== 'clean') ?? steps[0]
}
