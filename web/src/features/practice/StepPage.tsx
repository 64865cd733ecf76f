import { Suspense, useState } from 'react'
import { flushSync } from 'react-dom'
import { isFull } from '../../device/outbox'
import { useOutbox, useOutboxState } from '../../device/useOutbox'
import { NoKeyError } from '../../device/vault'
import type { Heard } from '../../ear/ask'
import { Button } from '../../ui/Button'
import { Hear } from './Hear'
import { LadderRungs } from './LadderRungs'
import { OtherWays } from './OtherWays'
import type { ShownStep } from './overlay'
import { PartBar, PartChoice } from './PartChoice'
import type { Practice } from './queries'
import { RecordTake } from './RecordTake'
import { StepSheet } from './StepSheet'
import { atOnce, judgeOnDevice, type NewTake, submit } from './submit'
import { AskDirector, StopHere } from './TellDirector'
import { TempoChoice } from './TempoChoice'
import { Outcome, Passed } from './told'
import { Unkept } from './Unkept'
import { useHold } from './useHold'
import { usePart } from './usePart'
import { useWorked } from './useWorked'

/** State is where a player is with the step. */
type State =
  | { at: 'ready' }
  | { at: 'heard'; takeId: string; own?: Blob; keeping?: boolean; early?: Heard }
  | { at: 'unkept'; take: NewTake; why: string }
  | { at: 'passed'; heard: Heard | undefined | 'listening'; own?: Blob; part?: string }
  | { at: 'done' }

/**
 * all are the day's steps: the rest before this one depends on what was played in the
 * others.
 */
type Props = { practice: Practice; step: ShownStep; all: ShownStep[]; onNext?: () => void }

/** StepPage is where one recorded step is read, played and heard. */
export function StepPage(props: Props) {
  const [hurt, setHurt] = useState(false)
  // Over whatever is going on: before, during and after a take.
  return (
    <>
      <Suspense>
        <Playing {...props} onHurt={() => setHurt(true)} />
      </Suspense>
      {hurt && <StopHere stepId={props.step.id} onClose={() => setHurt(false)} />}
    </>
  )
}

/** Playing is the step as it goes on: ready, heard, done. */
function Playing({ practice, step: asked, all, onNext, onHurt }: Props & { onHurt: () => void }) {
  const [state, setState] = useState<State>({ at: 'ready' })
  const [tempo, setTempo] = useState(0)
  const [recording, setRecording] = useState(false)
  const outbox = useOutbox()
  const { whole, turning } = useWorked(practice, asked, tempo)
  const { step, part, choose } = usePart(whole)
  const hold = useHold(step, all)
  const again = () => {
    setRecording(false) // the last one may still be being kept
    setState({ at: 'ready' })
  }
  const heard = (takeId: string, own?: Blob) => setState({ at: 'heard', takeId, ...(own && { own }) })
  /** change adds to what is known of the take that is told, while it still is. */
  const change = (takeId: string, more: { keeping?: boolean; early?: Heard }) =>
    setState((was) => (was.at === 'heard' && was.takeId === takeId ? { ...was, ...more } : was))
  async function take(made: NewTake) {
    if (part?.silent) return choose(undefined) // nothing sounded: now with sound
    const word = judgeOnDevice(practice, step, made)
    const own = made.file() // while the core listens
    const early = await atOnce(word)
    // What an older version of the page kept has no consent in it: the server says no itself.
    if (part || practice.may?.record === false) {
      const about = { own, ...(part && { part: part.label }) }
      setState({ at: 'passed', heard: early ? early.heard : 'listening', ...about })
      setState({ at: 'passed', heard: (await word).heard, ...about })
      return
    }
    // The word is told before the take is kept: a player is waiting.
    const told = early?.heard && { early: early.heard }
    flushSync(() => {
      outbox.expect(made.id)
      setState({ at: 'heard', takeId: made.id, own, keeping: true, ...told })
    })
    if (!early) void word.then(({ heard }) => heard && change(made.id, { early: heard }))
    try {
      await submit(outbox, practice, step, made)
    } catch (error) {
      setState({ at: 'unkept', take: made, why: whyUnkept(error) })
      return
    }
    change(made.id, { keeping: false })
    await outbox.addVerdict(made.id, await word)
  }
  const onward = { onDone: onNext ?? (() => setState({ at: 'done' })), done: onNext ? 'Next step' : 'Done' }
  const wholeStep = {
    onDone: () => {
      choose(undefined)
      again()
    },
    done: 'Now the whole step',
  }
  switch (state.at) {
    case 'heard':
      return (
        <>
          <Outcome
            takeId={state.takeId}
            own={state.own}
            keeping={state.keeping}
            early={state.early}
            cautions={step.score.cautions}
            onHurt={onHurt}
            ladder={step.ladder}
            hold={hold}
            onAgain={again}
            {...onward}
          />
          {hold && (
            <p className="mt-4">
              <Hear step={step} />
            </p>
          )}
        </>
      )
    case 'passed':
      return (
        <Passed
          heard={state.heard}
          own={state.own}
          cautions={step.score.cautions}
          onHurt={onHurt}
          hold={hold}
          onAgain={again}
          {...(state.part ? wholeStep : onward)}
        />
      )
    case 'unkept':
      return (
        <Unkept
          step={step}
          take={state.take}
          why={state.why}
          onSafe={heard}
          onRetry={() => void take(state.take)}
          onDiscard={again}
        />
      )
    case 'done':
      return <AllDone onAgain={again} kept={practice.may?.record !== false} />
  }
  return (
    <>
      {/* While it records, a sheet of its own covers all this: what is not there need not be taken away before the word. */}
      {!recording && (
        <>
          <StepSheet step={step} beside={!part && <TempoChoice step={step} onChange={setTempo} />}>
            {part && <PartBar part={part} onWhole={() => choose(undefined)} />}
            {step.ladder && <LadderRungs practice={practice} ladder={step.ladder} />}
          </StepSheet>
          {!part && <PartChoice step={whole} onChoose={choose} />}
        </>
      )}
      <RecordTake
        step={step}
        silent={part?.silent ?? false}
        standIns={practice.stand_ins}
        hold={hold}
        turning={turning}
        onRecording={setRecording}
        onRecorded={take}
        onHurt={onHurt}
      />
      {!recording && <AskDirector stepId={step.id} />}
      {!recording && practice.may?.record !== false && !part && (
        <OtherWays step={step} standIns={practice.stand_ins} onFile={(made) => void take(made)} />
      )}
    </>
  )
}

/**
 * whyUnkept says why the device could not keep a take, and what to do before the page is
 * closed.
 */
function whyUnkept(error: unknown): string {
  if (isFull(error)) return 'This device is full: the take could not be put on it. Make room, or send it now.'
  if (error instanceof NoKeyError) return error.message
  return 'This browser keeps nothing on the device (a private window, perhaps). The take has to go up now.'
}

/**
 * AllDone says whether the takes are safe, because that is what a player wants to know
 * before closing the lid.
 */
export function AllDone({ onAgain, kept = true }: { onAgain: () => void; kept?: boolean }) {
  const coming = useOutboxState((s) => s.coming)
  const waits = useOutboxState((s) => s.items.some((i) => i.state === 'waiting'))
  return (
    <section className="py-8">
      <h1>Done for today.</h1>
      <p className="mt-2">
        {!kept
          ? 'You practiced, and nothing was kept.'
          : coming > 0
            ? 'Your take is being kept.'
            : waits
              ? 'Your takes are kept on this device and go up by themselves.'
              : 'Your takes are safe with your director.'}{' '}
        Wipe the instrument dry before it goes in its case.
      </p>
      <p className="mt-4">
        <Button look="quiet" onClick={onAgain}>
          Once more
        </Button>
      </p>
    </section>
  )
}
