import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { perform, rehearseSoon } from '../../ear/ask'
import { isChecked, openMicrophone, playerSource, type Source } from '../../ear/microphone'
import { InterruptedError, type Recorded, type Recording, record, StoppedError } from '../../ear/recorder'
import { Button } from '../../ui/Button'
import { later } from '../../ui/later'
import { Problem } from '../../ui/Problem'
import { ActionBar } from './ActionBar'
import { Hear } from './Hear'
import { Interrupted } from './Interrupted'
import type { ShownStep } from './overlay'
import { Resting } from './Resting'
import { SoundChoices, useSoundChoices } from './SoundChoices'
import { type NewTake, newTake } from './submit'
import { hurts } from './TellDirector'
import { Outcome, Passed } from './told'
import type { Holding } from './useHold'
import { useLeaving } from './useLeaving'

const CountIn = later(async () => (await import('./CountIn')).CountIn)

// A microphone is checked once.
const MicrophoneCheck = lazy(async () => ({ default: (await import('../microphone')).MicrophoneCheck }))

/**
 * hold keeps the button shut while lips rest; the core says how long. turning does until the
 * rung that is shown is the one to be played.
 */
type Props = {
  step: ShownStep
  /** silent steps are fingered to the click: no microphone is opened */
  silent?: boolean
  standIns: { key: string; label: string }[]
  hold: Holding | undefined
  turning?: boolean
  /** onRecording tells when the sheet that covers the page comes up, and when it goes */
  onRecording: (on: boolean) => void
  onRecorded: (take: NewTake) => Promise<void>
  /** onHurt stops everything: something hurts, or the player feels dizzy */
  onHurt: () => void
}

/** Samples a second of a simulated player, the rate real microphones are asked for. */
const simulatedRate = 48_000

/** RecordTake records one take, through the microphone or from a simulated player. */
export function RecordTake(props: Props) {
  const { step, silent = false, standIns, hold, turning = false, onRecording, onRecorded, onHurt } = props
  const [recording, setRecording] = useState<Recording>()
  const [opening, setOpening] = useState(false)
  const [checking, setChecking] = useState(false)
  const [problem, setProblem] = useState<unknown>()
  const [cut, setCut] = useState<{ why: string; partial: Recorded }>()
  const [sounds, setSounds] = useSoundChoices()
  const live = useRef<Recording>(undefined)
  const leaving = useLeaving(recording !== undefined)
  useEffect(() => () => live.current?.stop(), []) // leaving the page closes the microphone
  useEffect(() => {
    rehearseSoon(step.score, simulatedRate)
    void loaded().catch(() => {}) // again when it is needed
  }, [step.score])
  const simulated = standIns.find((s) => s.key === sounds.input)
  // The file is what goes to the server; the sound stays here, for the first word at once.
  const submit = (r: Recorded) =>
    onRecorded({
      ...newTake(r.file, simulated ? 'simulated' : 'microphone', r.startMs, r.sound),
      through: r.through,
    })

  async function begin() {
    setProblem(undefined)
    setCut(undefined)
    setOpening(true)
    try {
      await loaded()
      const source = silent ? await nobody(step) : simulated ? await play(step, simulated) : await openMicrophone()
      // A microphone nobody has tried is tried first: the takes of a whole evening may hang on
      // it.
      if (!silent && !simulated && !isChecked(source.label)) {
        source.close()
        setChecking(true)
        return
      }
      const started = record(step, source, sounds)
      live.current = started
      setRecording(started)
      onRecording(true)
      await submit(await started.done)
    } catch (error) {
      // What was recorded before a call or a pulled plug is offered: it may be enough.
      if (error instanceof InterruptedError) setCut({ why: error.message, partial: error.partial })
      else if (!(error instanceof StoppedError)) setProblem(error)
    } finally {
      live.current = undefined
      setRecording(undefined)
      onRecording(false)
      setOpening(false)
    }
  }
  if (recording) {
    const stop = () => {
      recording.stop()
      onHurt()
    }
    return (
      <Suspense>
        <CountIn recording={recording} step={step} spoken={sounds.spoken} onHurt={stop} />
        {leaving}
      </Suspense>
    )
  }
  return (
    <div className="mt-6">
      {cut && <Interrupted why={cut.why} partial={cut.partial} onHandIn={() => submit(cut.partial)} />}
      <ActionBar>
        {/* Here, where the press was: below the sheet nobody would see why nothing happens. */}
        {problem !== undefined && (
          <div className="max-h-[50vh] overflow-y-auto pt-2">
            <Problem error={problem} />
          </div>
        )}
        {hold && <Resting hold={hold} />}
        {hold && !silent && (
          <p className="mt-2">
            <Hear step={step} />
          </p>
        )}
        <div className="mt-2 flex items-stretch gap-2">
          <Button
            look="main"
            size="large"
            className="grow sm:grow-0"
            data-key="r"
            onClick={() => void begin()}
            // Two presses must not open the microphone twice.
            disabled={opening || turning || Boolean(hold)}
          >
            {opening
              ? simulated
                ? 'The player gets ready …'
                : 'Opening the microphone …'
              : silent
                ? 'Start'
                : 'Record'}
          </Button>
          {/* In sight at all times: a child that feels dizzy does not look for it. */}
          <Button className="w-28 leading-tight sm:w-auto" onClick={onHurt}>
            {hurts}
          </Button>
        </div>
      </ActionBar>
      <p className="mt-2 text-sm text-soft">
        Four clicks, then it begins. It stops by itself after {Math.round(step.timeline.total_s)} seconds.
      </p>
      <SoundChoices
        sounds={sounds}
        onChange={setSounds}
        standIns={standIns}
        step={step}
        onCheck={() => setChecking(true)}
      />
      {checking && (
        <Suspense>
          <MicrophoneCheck
            onClose={() => setChecking(false)}
            onReady={() => {
              setChecking(false)
              void begin()
            }}
          />
        </Suspense>
      )}
    </div>
  )
}

/** loaded is there when recording can begin and be told of. */
const loaded = () => Promise.all([CountIn, Outcome, Passed].map((part) => part.load()))

/** nobody is silence in the microphone's place, for fingers that move without sound. */
function nobody(step: ShownStep): Promise<Source> {
  const length = Math.ceil(step.timeline.total_s * simulatedRate)
  return playerSource({ samples: new Float32Array(length), rate: simulatedRate }, 'silence')
}

/**
 * play lets a simulated player be the microphone: from here on nothing knows the
 * difference.
 */
function play(step: ShownStep, player: { key: string; label: string }): Promise<Source> {
  const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1
  return playerSource(perform(step.score, player.key, seed, simulatedRate), player.label)
}
