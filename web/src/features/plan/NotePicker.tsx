import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'

/**
 * notes are degrees: half steps from the band's home note, the same for every
 * instrument.
 */
type Props = {
  label: string
  most: number
  choices: Schemas['NoteChoice'][]
  notes: number[]
  problem?: string
  onChange: (notes: number[]) => void
}

/** NotePicker sets the row of concert notes a step asks for. */
export function NotePicker({ label, most, choices, notes, problem, onChange }: Props) {
  const name = (degree: number) => choices.find((c) => c.degree === degree)?.concert ?? '?'
  return (
    <fieldset>
      <legend className="text-sm text-soft">{label}</legend>
      <ol className="mt-1 flex min-h-12 flex-wrap items-center gap-2" aria-live="polite">
        {notes.map((degree, n) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: the same note may stand twice; its place is its name
            key={n}
            className="inline-flex items-center rounded-md border border-ink bg-sheet pl-3 font-serif text-lg"
          >
            {name(degree)}
            <Button
              look="quiet"
              aria-label={`Take ${name(degree)} away`}
              disabled={notes.length === 1}
              onClick={() => onChange(notes.filter((_, k) => k !== n))}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {choices.map((c) => (
          <Button
            key={c.degree}
            aria-label={`Add concert ${c.concert}${c.below ? ', below home' : ''}`}
            disabled={notes.length >= most}
            onClick={() => onChange([...notes, c.degree])}
            className={`min-w-11 px-2 font-serif ${c.first_five ? '' : 'border-dashed text-soft'}`}
          >
            {c.below ? '↓' : ''}
            {c.concert}
          </Button>
        ))}
      </div>
      <p className={`mt-1 text-sm ${problem ? 'text-not-yet' : 'text-soft'}`}>
        {problem ?? 'The first five notes are drawn solid; ↓ lies below home.'}
      </p>
    </fieldset>
  )
}
