import { useMutation } from '@tanstack/react-query'
import { perform } from '../../ear/ask'
import { toWAV } from '../../ear/decode'
import { asHeard, sixteenBits, wavOf } from '../../ear/wav'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import type { ShownStep } from './overlay'
import { type NewTake, newTake } from './submit'

/** A file is handed in like a recording; a simulated take is made on this device and says what it is. */
type Props = {
  step: ShownStep
  standIns: { key: string; label: string }[]
  onFile: (take: NewTake) => void
}

/** OtherWays hands in a recording made elsewhere, or lets a simulated player stand in for the microphone. */
export function OtherWays({ step, standIns, onFile }: Props) {
  const simulate = useMutation({
    mutationFn: (standIn: string) => simulated(step, standIn),
    onSuccess: onFile,
  })
  const choose = useMutation({
    mutationFn: (file: File) => toWAV(file),
    onSuccess: ({ file, sound }) => onFile(newTake(() => file, 'file', 0, sound)),
  })
  const pick = (standIn: string) => simulate.mutate(standIn)
  return (
    <details className="mt-6 border-t border-rule pt-3">
      <summary className="cursor-pointer text-soft">No microphone?</summary>
      <div className="mt-4 space-y-5">
        <div>
          <label htmlFor="recording-file" className="block">
            Hand in a recording of the whole step: WAV, FLAC, MP3, M4A, OGG or WebM
          </label>
          <input
            id="recording-file"
            type="file"
            accept="audio/*,.wav,.flac,.m4a,.mp3,.ogg,.webm"
            disabled={choose.isPending}
            onChange={(e) => {
              const file = e.target.files?.[0]
              if (file) choose.mutate(file)
            }}
            className="mt-1 block min-h-11 max-w-full file:min-h-11"
          />
          {choose.isPending && <p className="text-sm text-soft">Reading the file …</p>}
          {choose.error && <Problem error={choose.error} />}
        </div>
        {/* None are offered in a real class: homework is played. */}
        {standIns.length > 0 && (
          <div>
            <p>Let a simulated player hand it in, without waiting for the music</p>
            <StandIns among={standIns.slice(0, USUAL)} busy={simulate.isPending} onPick={pick} />
            <details className="mt-3">
              <summary className="cursor-pointer">Players who make one mistake</summary>
              <StandIns among={standIns.slice(USUAL)} busy={simulate.isPending} onPick={pick} />
            </details>
            {simulate.error && <Problem error={simulate.error} />}
          </div>
        )}
      </div>
    </details>
  )
}

/** Samples a second of a simulated take. */
const simulatedRate = 48_000

/** simulated is a take that a simulated player makes at once, without waiting for the music. */
async function simulated(step: ShownStep, standIn: string): Promise<NewTake> {
  const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1
  const sound = await perform(step.score, standIn, seed, simulatedRate)
  const samples = sixteenBits(sound.samples) // device and server hear the same
  const file = wavOf([samples], sound.rate)
  return newTake(() => file, 'simulated', 0, { samples: asHeard(samples), rate: sound.rate })
}

/** USUAL is how many stand-ins, the first of the list, are offered at once. */
const USUAL = 5

type StandInsProps = { among: { key: string; label: string }[]; busy: boolean; onPick: (key: string) => void }

function StandIns({ among, busy, onPick }: StandInsProps) {
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {among.map((s) => (
        <Button key={s.key} disabled={busy} onClick={() => onPick(s.key)}>
          {s.label}
        </Button>
      ))}
    </div>
  )
}
