import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Button, buttonClass } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { classesQuery } from '../signin'
import { type SetUp, useArchive, useCreateClass } from './queries'

/** Years begins a class, or the next year of this one, and archives what is over. */
export function Years({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const classes = useQuery(classesQuery)
  const create = useCreateClass()
  const archive = useArchive(classId)
  const navigate = useNavigate()
  const [name, setName] = useState('')
  const [next, setNext] = useState(false)
  // Most go on to the next year: the few who leave are unticked.
  const [keep, setKeep] = useState(setUp.players.map((p) => p.id))
  return (
    <div className="max-w-2xl">
      <h2>Your classes</h2>
      <ul className="mt-2">
        {classes.data?.map((c) => (
          <li key={c.id} className="border-b border-rule py-2">
            <Link to={`/class/${c.id}/set-up`}>{c.name}</Link> <span className="text-sm text-soft">{c.code}</span>
          </li>
        ))}
      </ul>
      <Gradebook classId={classId} />
      <TakeOut classId={classId} />
      <form
        className="mt-6"
        onSubmit={(e) => {
          e.preventDefault()
          // A class that is like no other keeps nobody; players' takes stay with the class they were
          // played in.
          create.mutate(next ? { name, like: classId, keep } : { name, beside: classId, keep: [] }, {
            // Straight to its set-up: a class without players can do nothing yet.
            onSuccess: (made) => navigate(`/class/${made.class.id}/set-up`),
          })
        }}
      >
        <h2>Begin a class</h2>
        <div className="mt-2 max-w-sm">
          <Field label="Name" required maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
        </div>
        <label className="mt-3 flex min-h-10 items-center gap-2">
          <input type="checkbox" className="size-5" checked={next} onChange={(e) => setNext(e.target.checked)} />
          It is the next year of {setUp.class.name}: same conventions, and these players
        </label>
        {next && (
          <ul className="mt-2 columns-2">
            {setUp.players.map((p) => (
              <li key={p.id}>
                <label className="flex min-h-9 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={keep.includes(p.id)}
                    onChange={() => setKeep(keep.includes(p.id) ? keep.filter((k) => k !== p.id) : [...keep, p.id])}
                  />
                  {p.first} {p.last}
                </label>
              </li>
            ))}
          </ul>
        )}
        {create.error && <Problem error={create.error} />}
        <p className="mt-3">
          <Button type="submit" look="main" disabled={create.isPending}>
            Begin it
          </Button>
        </p>
      </form>
      {!setUp.archived && (
        <div className="mt-8">
          <h2>Archive {setUp.class.name}</h2>
          <p className="mt-1 text-soft">
            Its takes and plans stay yours to see. Nobody signs in to it any more, until you take it out again.
          </p>
          {archive.error && <Problem error={archive.error} />}
          <p className="mt-2">
            <Button onClick={() => archive.mutate(undefined)}>Archive it</Button>
          </p>
        </div>
      )}
    </div>
  )
}

/** Gradebook offers practice by player and week, as the school's own system reads it. */
function Gradebook({ classId }: { classId: string }) {
  const [goal, setGoal] = useState('5')
  const [from, setFrom] = useState('')
  const asked = new URLSearchParams({ goal, ...(from && { from }) })
  const file = (format: string) => `/api/classes/${classId}/gradebook.${format}?${asked}`
  return (
    <section className="mt-8">
      <h2>Gradebook</h2>
      <p className="mt-1 text-soft">
        Days practiced, for each player and week. It counts that somebody came back, not how well it went.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Choice
          label="Days a week for the whole mark"
          value={goal}
          options={['1', '2', '3', '4', '5', '6', '7'].map((d) => ({ key: d, label: d }))}
          onChange={setGoal}
        />
        <Field
          label="From"
          type="date"
          hint="Empty: ten weeks."
          value={from}
          onChange={(e) => setFrom(e.target.value)}
        />
      </div>
      <p className="mt-2 flex flex-wrap gap-2">
        <a className={buttonClass()} href={file('csv')} download>
          List (CSV)
        </a>
        <a className={buttonClass()} href={file('zip')} download>
          OneRoster 1.2 (ZIP)
        </a>
      </p>
    </section>
  )
}

/** TakeOut offers everything that is kept of the class, in open formats. */
function TakeOut({ classId }: { classId: string }) {
  const file = (name: string) => `/api/classes/${classId}/${name}`
  return (
    <section className="mt-8">
      <h2>Export everything</h2>
      <p className="mt-1 text-soft">
        Players, plans, takes, measures, words, comments and ladders as CSV and JSON, with every column described. With
        recordings it is about half a megabyte for each take that is still kept.
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        {/* Links and not calls: the browser saves a large file while it comes, and shows how far it is. */}
        <a className={buttonClass()} href={file('everything.zip')} download>
          Everything
        </a>
        <a className={buttonClass()} href={file('everything.zip?sounds=true')} download>
          Everything, with recordings
        </a>
      </p>
      <p className="mt-2 text-sm">
        Only what was measured, a line a note:{' '}
        <a className="underline" href={file('progress.csv')}>
          CSV
        </a>
        ,{' '}
        <a className="underline" href={file('progress.json')}>
          JSON
        </a>
      </p>
    </section>
  )
}
