import { useState } from 'react'
import { Field } from '../../ui/Field'

/** names are written notes with their octaves; none leaves the concert notes. */
type Props = { label: string; names: string[]; problem?: string; onChange: (names: string[]) => void }

/** WrittenNotes takes notes as one section reads them, typed one after the other. */
export function WrittenNotes({ label, names, problem, onChange }: Props) {
  // What is typed stays as it is typed: half a name is no note yet.
  const [text, setText] = useState(names.join(' '))
  return (
    <Field
      label={label}
      value={text}
      problem={problem}
      placeholder="E3 F♯4"
      autoComplete="off"
      spellCheck={false}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => onChange(text.split(/[\s,]+/).filter(Boolean))}
    />
  )
}
