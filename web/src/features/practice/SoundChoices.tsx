import { useState } from 'react'
import type { Wanted } from '../../ear/metronome'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import type { ShownStep } from './overlay'

/** Sounds are what a player wants to hear under a take, and who plays it. */
export type Sounds = Wanted & { input: string; spoken: boolean }

/** Where the choices are kept: they belong to the device, not to the player. */
const kept = 'sounds'
/** Silence under a take: what sounds from the device is recorded with the player. */
const usual: Sounds = { click: false, drone: false, input: 'microphone', spoken: false }

/** useSoundChoices remembers the choices on this device. */
export function useSoundChoices(): [Sounds, (s: Sounds) => void] {
  const [sounds, setSounds] = useState<Sounds>(() => {
    try {
      return { ...usual, ...JSON.parse(localStorage.getItem(kept) ?? '{}') }
    } catch {
      return usual
    }
  })
  return [
    sounds,
    (s) => {
      localStorage.setItem(kept, JSON.stringify(s))
      setSounds(s)
    },
  ]
}

/** standIns can be chosen as the microphone, for trying the page in a room without one. */
type Props = {
  sounds: Sounds
  onChange: (s: Sounds) => void
  standIns: { key: string; label: string }[]
  step: ShownStep
  onCheck: () => void
}

/** SoundChoices are the sounds under a take, who plays, and the way to the microphone's check. */
export function SoundChoices({ sounds, onChange, standIns, step, onCheck }: Props) {
  const recordedToo = sounds.click || sounds.spoken || sounds.drone || step.timeline.tones.length > 0
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer py-2 text-soft">Sounds and microphone</summary>
      <div className="space-y-3 py-2">
        <Tick
          label="Click all the way through"
          on={sounds.click}
          onChange={(click) => onChange({ ...sounds, click })}
        />
        <Tick label="A low drone under it" on={sounds.drone} onChange={(drone) => onChange({ ...sounds, drone })} />
        <Tick
          label="My screen reader says what comes next"
          on={sounds.spoken}
          onChange={(spoken) => onChange({ ...sounds, spoken })}
        />
        {standIns.length > 0 && (
          <Select
            label="Who plays"
            showLabel
            value={sounds.input}
            onChange={(input) => onChange({ ...sounds, input })}
            options={[
              { value: 'microphone', label: 'I do, at the microphone' },
              ...standIns.map((s) => ({ value: s.key, label: `${s.label}, simulated` })),
            ]}
          />
        )}
        <Button onClick={onCheck}>Check the microphone</Button>
      </div>
      {recordedToo && sounds.input === 'microphone' && <Headphones />}
    </details>
  )
}

/** Headphones are asked for when a sound of ours would be recorded. */
function Headphones() {
  return (
    <p className="border-l-4 border-nearly pl-3 text-sm">
      Put headphones on, not loud: a tone or a click from the loudspeaker would be recorded over your sound.
    </p>
  )
}

/** Tick is a choice that fits a thumb. */
function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input type="checkbox" className="size-6" checked={on} onChange={(e) => onChange(e.target.checked)} />
      {label}
    </label>
  )
}
