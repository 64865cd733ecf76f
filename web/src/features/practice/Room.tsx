import { useState } from 'react'
import { LadderRungs } from './LadderRungs'
import { OtherWays } from './OtherWays'
import { Outcome } from './Outcome'
import type { HandedIn, PracticeStep } from './queries'
import { RecordTake } from './RecordTake'
import { Sending } from './Sending'
import { StepSheet } from './StepSheet'
import { TellDirector } from './TellDirector'

/** State is where a player is with the step. */
type State = { at: 'ready' } | { at: 'sending'; take: HandedIn } | { at: 'heard'; takeId: string } | { at: 'done' }

type Props = { step: PracticeStep; standIns: { key: string; label: string }[]; onNext?: () => void }

/** Room is where one recorded step is read, played and heard. */
export function Room({ step, standIns, onNext }: Props) {
  const [state, setState] = useState<State>({ at: 'ready' })
  const handIn = (take: HandedIn) => setState({ at: 'sending', take })
  const heard = (takeId: string) => setState({ at: 'heard', takeId })
  const again = () => setState({ at: 'ready' })
  switch (state.at) {
    case 'sending':
      return <Sending step={step} take={state.take} onSafe={heard} onDiscard={again} />
    case 'heard':
      return (
        <Outcome
          takeId={state.takeId}
          onAgain={again}
          onDone={onNext ?? (() => setState({ at: 'done' }))}
          done={onNext ? 'Next step' : 'Done'}
        />
      )
    case 'done':
      return <AllDone onAgain={again} />
  }
  return (
    <>
      <StepSheet step={step}>{step.ladder && <LadderRungs ladder={step.ladder} />}</StepSheet>
      <RecordTake step={step} onRecorded={handIn} />
      <TellDirector stepId={step.id} />
      <OtherWays step={step} standIns={standIns} onFile={handIn} onSimulated={heard} />
    </>
  )
}

export function AllDone({ onAgain }: { onAgain: () => void }) {
  return (
    <section className="py-8">
      <h1>Done for today.</h1>
      <p className="mt-2">
        Your takes are safe with your director. Wipe the instrument dry before it goes in its case.
      </p>
      <p className="mt-4">
        <button type="button" className="text-warm underline" onClick={onAgain}>
          Once more
        </button>
      </p>
    </section>
  )
}
