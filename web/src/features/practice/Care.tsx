import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { newId } from '../../api/ids'
import { useOutbox } from '../../device/useOutbox'
import { Button } from '../../ui/Button'
import { shortDay } from '../../ui/days'
import { LessonCards } from '../../ui/LessonCards'

/** Care is what the instrument needs this week, month and term; what is due stands open. */
export function Care({ care }: { care: Schemas['Due'][] }) {
  if (care.length === 0) return null
  const now = care.filter((c) => c.now).length
  return (
    <section aria-label="Looking after your instrument" className="mt-8 border-t border-rule pt-3">
      <h2 className="text-base">
        Looking after your instrument
        <span className="ml-2 font-sans text-sm text-soft">
          {now === 0 ? 'nothing is due' : `${now} ${now === 1 ? 'thing is' : 'things are'} due`}
        </span>
      </h2>
      <p className="mt-1 text-sm">
        <Link to="/lessons" className="inline-flex min-h-11 items-center underline">
          All lessons: put it together, hold it, put it away
        </Link>
      </p>
      <ul>
        {care.map((c) => (
          <li key={c.every}>
            <CareOf due={c} />
          </li>
        ))}
      </ul>
    </section>
  )
}

/** CareOf is one kind of care: its steps in order, and the word that it is done. */
function CareOf({ due }: { due: Schemas['Due'] }) {
  const outbox = useOutbox()
  // At once on this device; the server's word comes with the next page.
  const [done, setDone] = useState(false)
  const open = due.now && !done
  return (
    <details className="border-b border-rule py-2">
      <summary className="min-h-11 cursor-pointer py-2">
        {due.name[0]?.toUpperCase() + due.name.slice(1)}
        <span className={`ml-2 text-sm ${open ? 'text-nearly' : 'text-soft'}`}>
          {done ? 'done today' : due.now ? 'due now' : `due ${shortDay(due.due)}`}
          {due.last && !done && `, last ${shortDay(due.last)}`}
        </span>
      </summary>
      <LessonCards items={due.items} pictures={due.pictures} />
      <p className="mt-3">
        <Button
          disabled={done}
          onClick={() => {
            setDone(true)
            void outbox
              .keepMessage(newId(), { method: 'PUT', path: `/practice/care/${due.every}`, body: {} })
              .catch(() => setDone(false))
          }}
        >
          {done ? 'Done' : 'I have done it'}
        </Button>
      </p>
    </details>
  )
}
