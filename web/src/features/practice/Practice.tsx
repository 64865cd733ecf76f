import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { FromDirector } from './FromDirector'
import { OtherWays } from './OtherWays'
import { Outcome } from './Outcome'
import { type HandedIn, type PracticeStep, practiceQuery } from './queries'
import { RecordTake } from './RecordTake'
import { Sending } from './Sending'
import { StepSheet } from './StepSheet'
import { TodaysTakes } from './TodaysTakes'

/** Practice is the player's page: one thing to do, and what came of it. */
export function Practice() {
  const { data, error } = useQuery(practiceQuery)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening your music" />
  return (
    <div className="mx-auto max-w-2xl">
      <p className="text-soft">{data.instrument}</p>
      {data.step ? (
        <Room key={`${data.step.id}/${data.step.version}`} step={data.step} standIns={data.stand_ins} />
      ) : (
        <p className="mt-6 text-lg">Nothing is set for today. Play something you like.</p>
      )}
      <TodaysTakes takes={data.takes} />
      <FromDirector comments={data.comments} />
    </div>
  )
}

/** State is where a player is with the step. */
type State = { at: 'ready' } | { at: 'sending'; take: HandedIn } | { at: 'heard'; takeId: string } | { at: 'done' }

function Room({ step, standIns }: { step: PracticeStep; standIns: { key: string; label: string }[] }) {
  const [state, setState] = useState<State>({ at: 'ready' })
  const handIn = (take: HandedIn) => setState({ at: 'sending', take })
  const heard = (takeId: string) => setState({ at: 'heard', takeId })
  const again = () => setState({ at: 'ready' })
  switch (state.at) {
    case 'sending':
      return <Sending step={step} take={state.take} onSafe={heard} onDiscard={again} />
    case 'heard':
      return <Outcome takeId={state.takeId} onAgain={again} onDone={() => setState({ at: 'done' })} />
    case 'done':
      return (
        <section className="py-8">
          <h1>Done for today.</h1>
          <p className="mt-2">
            Your takes are safe with your director. Wipe the instrument dry before it goes in its case.
          </p>
          <p className="mt-4">
            <button type="button" className="text-warm underline" onClick={again}>
              Play it once more
            </button>
          </p>
        </section>
      )
  }
  return (
    <>
      <StepSheet step={step} />
      <RecordTake step={step} onRecorded={handIn} />
      <OtherWays step={step} standIns={standIns} onFile={handIn} onSimulated={heard} />
    </>
  )
}
