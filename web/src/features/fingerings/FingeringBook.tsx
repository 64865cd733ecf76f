import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { type Chart, chart, type Request } from '../../ear/ask'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { HearNote } from './HearNote'
import { PlayIt } from './PlayIt'

/** Notation is large and comes late; the names are there before it. */
const Staff = lazy(() => import('../../notation/Staff'))

type Note = Chart['notes'][number]

/** Which notes are in view: a beginner is not shown three octaves at once. */
const parts = [
  { key: 'first', label: 'First five', holds: (n: Note) => n.first },
  { key: 'easy', label: 'Without the hard ones', holds: (n: Note) => !n.hard },
  { key: 'all', label: 'All', holds: () => true },
]

/** known and fresh are a player's own sounding notes; none where no list is kept. */
type Props = { request: Request<'chart'>; known?: number[]; fresh?: number[] }

/** FingeringBook is every note of an instrument with every way to finger it, drawn; it prints as it stands. */
export function FingeringBook({ request, known = [], fresh = [] }: Props) {
  const { data, error } = useQuery({ queryKey: ['chart', request], queryFn: () => chart(request), staleTime: Infinity })
  const own = { key: 'known', label: 'Notes I know', holds: (n: Note) => [...known, ...fresh].includes(n.midi) }
  const choices = known.length > 0 ? [own, ...parts] : parts
  const [part, setPart] = useState(known.length > 0 ? 'known' : 'easy')
  const [played, setPlayed] = useState<Note>()
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Drawing the fingerings" />
  const shown = data.notes.filter(choices.find((p) => p.key === part)?.holds ?? (() => true))
  return (
    <>
      <h1>Fingerings, {data.instrument}</h1>
      <p className="max-w-prose text-soft print:hidden">
        Filled is pressed or covered. Beside a key stands the finger that finds it. Charts differ a little from
        instrument to instrument: where yours does, your director’s word counts.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2 print:hidden">
        {choices.map((p) => (
          <Button
            key={p.key}
            aria-pressed={part === p.key}
            className="aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() => setPart(p.key)}
          >
            {p.label}
          </Button>
        ))}
        <Button look="quiet" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <ul className="mt-4 grid grid-cols-2 gap-3 sm:grid-cols-3 lg:grid-cols-4 xl:grid-cols-5">
        {shown.map((n) => (
          <NoteCard
            key={n.written_name}
            isNew={fresh.includes(n.midi)}
            note={n}
            book={data}
            of={request}
            onPlay={() => setPlayed(n)}
          />
        ))}
      </ul>
      {played && <PlayIt note={played} book={data} of={request} onClose={() => setPlayed(undefined)} />}
    </>
  )
}

/** onPlay listens to the note. */
type CardProps = { isNew: boolean; note: Note; book: Chart; of: Request<'chart'>; onPlay: () => void }

/** NoteCard is one note: on the staff, by name, and every way to finger it; to hear, and to play. */
function NoteCard({ isNew, note, book, of, onPlay }: CardProps) {
  return (
    <li className="break-inside-avoid rounded-md border border-rule bg-sheet p-2 text-center">
      <div className="h-36">
        <Suspense>
          <Staff clef={book.clef as 'treble' | 'bass'} keyFifths={0} note={note.written} accidental={note.accidental} />
        </Suspense>
      </div>
      <h2 className="text-lg">
        {note.called}
        {note.also && <span className="font-sans text-sm text-soft"> or {note.also}</span>}
      </h2>
      <p className="text-sm text-soft">{note.place}</p>
      {isNew && <p className="text-sm text-warm">New this week.</p>}
      {note.ways.length === 0 && <p className="text-sm text-soft">Ask your director for this one.</p>}
      {note.ways.map((way, n) => (
        <figure key={way.text} className="mt-1">
          {n > 0 && <figcaption className="text-xs text-soft">or</figcaption>}
          <div className="flex justify-center">
            <FingeringDiagram fingering={way} height={n === 0 ? 190 : 150} />
          </div>
          <figcaption className="text-sm">{way.text}</figcaption>
        </figure>
      ))}
      {note.hard && <p className="mt-1 text-sm text-soft">A hard note: trying counts.</p>}
      <p className="mt-2 flex flex-wrap justify-center gap-2 print:hidden">
        <HearNote of={of} midi={note.midi} name={note.called} />
        <Button onClick={onPlay}>
          Play it<span className="sr-only">: {note.called}</span>
        </Button>
      </p>
      {note.tendency && <p className="mt-1 text-left text-xs text-soft">{note.tendency}</p>}
    </li>
  )
}
