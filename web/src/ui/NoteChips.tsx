import type { Schemas } from '../api/client'

type Note = Schemas['KnownNote']

/** on says whether a note is chosen; marked is a word to stand under it. */
type Props = {
  legend: string
  notes: Note[]
  on: (n: Note) => boolean
  marked: (n: Note) => string
  onToggle: (n: Note) => void
}

/** NoteChips is a range of notes, each to be chosen or not. */
export function NoteChips({ legend, notes, on, marked, onToggle }: Props) {
  return (
    <fieldset className="mt-2 min-w-0">
      <legend className="text-sm text-soft">{legend}</legend>
      <div className="mt-1 flex flex-wrap gap-1">
        {notes.map((n) => (
          <label
            key={n.midi}
            className="flex min-h-11 min-w-11 cursor-pointer flex-col items-center justify-center rounded-md border border-edge px-1 font-serif text-sm has-checked:border-ink has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3 has-focus-visible:outline-warm"
          >
            <input type="checkbox" className="sr-only" checked={on(n)} onChange={() => onToggle(n)} />
            {n.written}
            {marked(n) && <span className="font-sans text-xs leading-none">{marked(n)}</span>}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
