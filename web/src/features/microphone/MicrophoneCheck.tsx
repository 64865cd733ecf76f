import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { MicrophoneCheck as Found } from '../../ear/ask'
import { chooseDevice, chosenDevice, microphones, putCheckOff, rememberCheck } from '../../ear/microphone'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { LevelBar } from '../../ui/LevelBar'
import { Problem } from '../../ui/Problem'
import { type Checking, useCheck } from './useCheck'

/** onReady goes on to what the check was opened from; onClose goes back. */
type Props = { onClose: () => void; onReady: () => void }

/**
 * What the player does now. The check is two quiets around a note, so that noise, level
 * and a gain that rides are all heard.
 */
const asks: Partial<Record<Checking['at'], string>> = {
  opening: 'Opening the microphone …',
  quiet: 'Be quiet.',
  play: 'Play or sing one note, not loud, not soft.',
  'quiet-again': 'Quiet again.',
  listening: 'Listening to it …',
}

/** MicrophoneCheck listens to the room and one note before the first take, and whenever the microphone is another. */
export function MicrophoneCheck({ onClose, onReady }: Props) {
  const { checking, run } = useCheck()
  const later = () => {
    putCheckOff()
    onReady()
  }
  const running = checking.at in asks
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="First, the microphone"
      says="Seven seconds: quiet, one note, quiet. So that a fault of the recording is never taken for yours."
    >
      <Devices key={checking.at} now={checking.label} />
      <div className="mt-5 min-h-32 border-y border-rule py-5">
        <p className="font-serif text-xl" role="status">
          {asks[checking.at] ?? (checking.at === 'idle' ? 'Instrument ready? Then begin.' : '')}
        </p>
        {running && checking.left > 0 && (
          <p className="mt-3 flex items-center gap-5">
            <LevelBar level={checking.level} />
            <span className="text-soft tabular-nums">{Math.ceil(checking.left)}</span>
          </p>
        )}
        {checking.problem !== undefined && <Problem error={checking.problem} />}
        {checking.found && <Result found={checking.found} />}
      </div>
      <p className="mt-5 flex flex-wrap gap-3">
        {checking.found?.good ? (
          <Button look="main" size="large" onClick={onReady}>
            Now record
          </Button>
        ) : (
          <Button look="main" size="large" onClick={run} disabled={running}>
            {checking.at === 'idle' ? 'Begin the check' : 'Check again'}
          </Button>
        )}
        {checking.found && !checking.found.good && (
          <Button
            size="large"
            onClick={() => {
              rememberCheck(checking.label)
              onReady()
            }}
          >
            Record all the same
          </Button>
        )}
        {checking.at === 'idle' && (
          <Button size="large" onClick={later}>
            Not now
          </Button>
        )}
      </p>
    </Dialog>
  )
}

/** Result says what was found, in the core's words, the remedy first where there is one. */
function Result({ found }: { found: Found }) {
  return (
    <>
      <ul className="space-y-2 text-lg">
        {found.says.map((s) => (
          <li key={s} className={`border-l-4 pl-3 ${found.good ? 'border-clean' : 'border-nearly'}`}>
            {s}
          </li>
        ))}
      </ul>
      <p className="mt-3 text-sm text-soft">
        The room lies {Math.round(-found.room_db)} dB below the loudest the microphone takes, your note{' '}
        {Math.round(-found.note_db)} dB.
      </p>
    </>
  )
}

/** Devices is the choice of a microphone, where there is more than one. */
function Devices({ now }: { now: string }) {
  const { data = [] } = useQuery({ queryKey: ['microphones', now], queryFn: microphones })
  const [chosen, setChosen] = useState(chosenDevice)
  // The line is there before the microphones are known: nothing moves under a finger.
  if (data.length < 2) return <p className="mt-4 min-h-11 content-center text-sm text-soft">{now}</p>
  return (
    <label className="mt-4 flex items-center gap-2">
      Microphone
      <select
        className="min-h-11 min-w-0 rounded-md border border-edge bg-sheet px-3"
        value={chosen}
        onChange={(e) => {
          chooseDevice(e.target.value)
          setChosen(e.target.value)
        }}
      >
        <option value="">the browser’s choice</option>
        {data.map((d, n) => (
          <option key={d.deviceId} value={d.deviceId}>
            {d.label || `Microphone ${n + 1}`}
          </option>
        ))}
      </select>
    </label>
  )
}
