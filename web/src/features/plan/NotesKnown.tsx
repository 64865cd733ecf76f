import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { shortDay } from '../../ui/days'
import { NoteChips } from '../../ui/NoteChips'
import { Problem } from '../../ui/Problem'
import { Select } from '../../ui/Select'
import { Waiting } from '../../ui/Waiting'
import { knownQuery, useSaveKnown } from './known'

type Knows = Schemas['InstrumentKnows']
type Book = Schemas['Book']

/** onNew is told when a note is new this week: its steps may go into the plan. */
type Props = { classId: string; monday: string; onNew: () => void; onClose: () => void }

/** NotesKnown is which notes each section knows, and the week's new one. */
export function NotesKnown(props: Props) {
  const known = useQuery(knownQuery(props.classId, props.monday))
  return (
    <Dialog
      open
      onOpenChange={props.onClose}
      title="Notes known, and this week’s new note"
      says="Patterns use the notes a section knows. A new note is new for a week and has small steps of its own."
    >
      {known.error && <Problem error={known.error} />}
      {known.data ? <Sections {...props} known={known.data} /> : <Waiting what="Opening the notes" />}
    </Dialog>
  )
}

/** none stands for no new note: a choice in the list needs a value. */
const none = 'none'

/** Sections is the form: a section a line. */
function Sections({ classId, monday, onNew, onClose, known }: Props & { known: Schemas['KnownNotes'] }) {
  const [instruments, setInstruments] = useState(known.instruments)
  const [byStage, setByStage] = useState(known.by_stage)
  const save = useSaveKnown(classId, monday)
  const set = (key: string, notes: Knows['notes']) =>
    setInstruments((all) => all.map((i) => (i.instrument === key ? { ...i, notes } : i)))
  const store = () =>
    save.mutate(bookOf(instruments, byStage), {
      onSuccess: () => {
        if (instruments.some((i) => newOf(i, monday))) onNew()
        onClose()
      },
    })
  return (
    <>
      <p className="mt-4">
        <Button
          onClick={() =>
            setInstruments((all) =>
              all.map((i) => (newOf(i, monday) || knowsAll(i) ? i : { ...i, notes: given(i, i.next_midi, monday) })),
            )
          }
        >
          Give each section the note that usually comes next
        </Button>
      </p>
      <ul className="mt-4 border-t border-rule">
        {instruments.map((i) => (
          <li key={i.instrument} className="border-b border-rule py-3" data-section={i.section}>
            <div className="flex flex-wrap items-center justify-between gap-3">
              <h3 className="font-serif text-lg">{i.section}</h3>
              <Select
                label={`New for ${i.section} in the week of ${shortDay(monday)}`}
                value={String(newOf(i, monday)?.midi ?? none)}
                onChange={(midi) => set(i.instrument, given(i, midi === none ? undefined : Number(midi), monday))}
                options={[
                  { value: none, label: 'No new note' },
                  ...i.notes
                    .filter((n) => n.state !== 'known')
                    .map((n) => ({ value: String(n.midi), label: `New: ${n.written} (concert ${n.concert})` })),
                ]}
              />
            </div>
            <NoteChips
              legend={`Notes ${i.section} know, as written`}
              notes={i.notes}
              on={(n) => n.state === 'known'}
              marked={(n) => (n.week && n.state !== 'known' ? 'new' : n.hard ? 'hard' : '')}
              onToggle={(n) =>
                set(
                  i.instrument,
                  i.notes.map((m) =>
                    m.midi === n.midi ? { ...m, week: undefined, state: m.state === 'known' ? undefined : 'known' } : m,
                  ),
                )
              }
            />
          </li>
        ))}
      </ul>
      <label className="mt-4 flex min-h-10 items-center gap-2 text-sm">
        <input type="checkbox" className="size-5" checked={byStage} onChange={(e) => setByStage(e.target.checked)} />
        Keep no list: patterns may use every note the stage reaches
      </label>
      {save.error && <Problem error={save.error} />}
      <p className="mt-4">
        <Button look="main" onClick={store} disabled={save.isPending}>
          Save the notes
        </Button>
      </p>
    </>
  )
}

/** newOf is the note that is new on an instrument in a week. */
const newOf = (i: Knows, monday: string) => i.notes.find((n) => n.week === monday && n.state !== 'known')

/** knowsAll says that nothing comes next. */
const knowsAll = (i: Knows) => i.notes.every((n) => n.state === 'known')

/** given makes one note new in a week, or none; one that was new in it is not known again. */
function given(i: Knows, midi: number | undefined, monday: string): Knows['notes'] {
  return i.notes.map((n) => {
    if (n.midi === midi) return { ...n, week: monday, state: 'new' as const }
    return n.week === monday && n.state !== 'known' ? { ...n, week: undefined, state: undefined } : n
  })
}

/** bookOf is the form as it is kept: only notes that are known, or have a week. */
function bookOf(instruments: Knows[], byStage: boolean): Book {
  const notes = Object.fromEntries(
    instruments.map((i) => [
      i.instrument,
      i.notes.filter((n) => n.state).map((n) => ({ midi: n.midi, ...(n.week ? { week: n.week } : {}) })),
    ]),
  )
  return { by_stage: byStage, notes }
}
