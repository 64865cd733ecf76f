import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import type { Conventions, SetUp } from './queries'

/**
 * onChange gets the notes of every instrument: sounding MIDI numbers by instrument key,
 * those that differ from ours only.
 */
type Props = { setUp: SetUp; conventions: Conventions; onChange: (hard: Conventions['hard']) => void }

/** HardNotes chooses, instrument by instrument, which notes count as tried. */
export function HardNotes({ setUp, conventions, onChange }: Props) {
  const [key, setKey] = useState(setUp.players[0]?.instrument ?? 'trumpet')
  const instrument = setUp.instruments.find((i) => i.key === key)
  const own = conventions.hard ?? {}
  const now = own[key] ?? instrument?.notes.filter((n) => n.usual).map((n) => n.sounding_midi) ?? []
  const toggle = (midi: number) =>
    onChange({
      ...own,
      [key]: now.includes(midi) ? now.filter((m) => m !== midi) : [...now, midi].sort((a, b) => a - b),
    })
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">Hard notes by instrument</summary>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <Choice
          label="Instrument"
          value={key}
          options={setUp.instruments.map((i) => ({ key: i.key, label: i.name }))}
          onChange={setKey}
        />
        {own[key] && (
          <Button
            look="quiet"
            onClick={() => onChange(Object.fromEntries(Object.entries(own).filter(([k]) => k !== key)))}
          >
            As usual
          </Button>
        )}
      </div>
      <fieldset className="mt-2">
        <legend className="text-sm text-soft">Counted as tried, judged one stage lower (written notes)</legend>
        <div className="mt-1 flex flex-wrap gap-1">
          {instrument?.notes.map((n) => (
            <label
              key={n.sounding_midi}
              className="flex min-h-9 min-w-11 cursor-pointer items-center justify-center rounded-md border border-edge font-serif text-sm has-checked:border-ink has-checked:bg-ink has-checked:text-paper"
            >
              <input
                type="checkbox"
                className="sr-only"
                checked={now.includes(n.sounding_midi)}
                onChange={() => toggle(n.sounding_midi)}
              />
              {n.written}
            </label>
          ))}
        </div>
      </fieldset>
    </details>
  )
}
