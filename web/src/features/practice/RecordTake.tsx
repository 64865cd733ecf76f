import { useEffect, useRef, useState } from 'react'
import { newId } from '../../api/ids'
import { type Recording, record, StoppedError } from '../../ear/recorder'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { CountIn } from './CountIn'
import type { HandedIn, PracticeStep } from './queries'

type Props = { step: PracticeStep; onRecorded: (take: HandedIn) => void }

/** RecordTake records one take through the microphone. */
export function RecordTake({ step, onRecorded }: Props) {
  const [recording, setRecording] = useState<Recording>()
  const [opening, setOpening] = useState(false)
  const [problem, setProblem] = useState<unknown>()
  const live = useRef<Recording>(undefined)
  useEffect(() => () => live.current?.stop(), []) // leaving the page closes the microphone
  async function begin() {
    setProblem(undefined)
    setOpening(true)
    try {
      const started = await record(step)
      live.current = started
      setRecording(started)
      const { file, startMs } = await started.done
      onRecorded({ id: newId(), file, source: 'microphone', startMs })
    } catch (error) {
      if (!(error instanceof StoppedError)) setProblem(error)
    } finally {
      live.current = undefined
      setRecording(undefined)
      setOpening(false)
    }
  }
  if (recording) return <CountIn recording={recording} step={step} />
  return (
    <div className="mt-6">
      {problem !== undefined && <Problem error={problem} />}
      <Button
        look="main"
        size="large"
        className="mt-2 w-full sm:w-auto"
        onClick={() => void begin()}
        disabled={opening}
      >
        {opening ? 'Opening the microphone …' : 'Record'}
      </Button>
      <p className="mt-2 text-sm text-soft">
        Four clicks, then play. Breathe on three and four. It stops by itself after {Math.round(step.timeline.total_s)}{' '}
        s.
      </p>
    </div>
  )
}
