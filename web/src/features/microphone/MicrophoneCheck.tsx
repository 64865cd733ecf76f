import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { MicrophoneCheck as Found } from '../../ear/ask'
import { chooseDevice, chosenDevice, microphones, putCheckOff, rememberCheck } from '../../ear/microphone'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { LevelBar, levelSteps } from '../../ui/LevelBar'
import { Problem } from '../../ui/Problem'
import { Select } from '../../ui/Select'
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
  // At once: the player pressed Record, and the check is the first part of it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it opens
  useEffect(run, [])
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="First, the microphone"
      says="It takes seven seconds: quiet, one note, quiet."
    >
      <Devices now={checking.label} />
      <div className="mt-5 min-h-32 border-y border-rule py-5">
        {/* Not read out while it listens: the microphone would hear the voice. */}
        <p className="font-serif text-xl" aria-live="off">
          {asks[checking.at]}
        </p>
        {running && checking.left > 0 && (
          <p className="mt-3 flex items-center gap-5">
            <LevelBar lit={levelSteps(checking.level)} />
            <span className="text-soft tabular-nums">{Math.ceil(checking.left)}</span>
          </p>
        )}
        {checking.problem !== undefined && <Problem error={checking.problem} />}
        <div role="status">{checking.found && <Result found={checking.found} />}</div>
      </div>
      <p className="mt-5 flex flex-wrap gap-3">
        {checking.found?.good ? (
          <Button look="main" size="large" onClick={onReady}>
            Now record
          </Button>
        ) : (
          <Button look="main" size="large" onClick={run} disabled={running}>
            {running ? 'Checking …' : 'Check again'}
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
        {!checking.found && (
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
      <details className="mt-3 text-sm text-soft">
        <summary className="min-h-11 cursor-pointer py-2">The numbers</summary>
        The room lies {Math.round(-found.room_db)} dB below the loudest the microphone takes, your note{' '}
        {Math.round(-found.note_db)} dB.
      </details>
    </>
  )
}

const browsersOwn = 'browser'

/** Devices is the choice of a microphone, where there is more than one. */
function Devices({ now }: { now: string }) {
  const { data = [] } = useQuery({
    queryKey: ['microphones', now],
    queryFn: microphones,
    placeholderData: (before) => before, // the choice stays, and whoever is on it
  })
  const [chosen, setChosen] = useState(chosenDevice)
  // The line is there before the microphones are known: nothing moves under a finger.
  if (data.length < 2) return <p className="mt-4 min-h-11 content-center text-sm text-soft">{now}</p>
  return (
    <p className="mt-4">
      <Select
        label="Microphone"
        showLabel
        // The browser's own choice has no name, and a choice needs one.
        value={chosen || browsersOwn}
        onChange={(id) => {
          const device = id === browsersOwn ? '' : id
          chooseDevice(device)
          setChosen(device)
        }}
        options={[
          { value: browsersOwn, label: 'the browser’s choice' },
          ...data.map((d, n) => ({ value: d.deviceId, label: d.label || `Microphone ${n + 1}` })),
        ].filter((o) => o.value)}
      />
    </p>
  )
}
