import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { MySignIn } from './MySignIn'
import { NewPassword } from './NewPassword'
import { sessionsQuery, useEndSession } from './queries'

/** WhereSignedIn shows on which devices one is signed in, and ends it there. */
export function WhereSignedIn() {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        My sign-in
      </Button>
      {open && (
        <Dialog
          open
          onOpenChange={setOpen}
          title="My sign-in"
          says="Your password, what stands beside it, and where you are signed in."
        >
          <NewPassword />
          <MySignIn />
          <Sessions />
        </Dialog>
      )}
    </>
  )
}

function Sessions() {
  const { data, error } = useQuery({ ...sessionsQuery, staleTime: 0 })
  const end = useEndSession()
  if (error) return <Problem error={error} />
  if (!data) return <Waiting />
  return (
    <>
      <h3 className="mt-6 text-lg">Where you are signed in</h3>
      <p className="text-soft">A device you do not know, or have left behind? Sign out there.</p>
      <ul className="mt-2">
        {data.map((s) => (
          <li key={s.id} className="flex min-h-12 items-center justify-between gap-4 border-b border-rule">
            <span>
              {s.browser}
              <span className="text-sm text-soft">{s.this ? ' · this one' : ` · last used ${moment(s.seen)}`}</span>
            </span>
            {!s.this && (
              <Button
                look="quiet"
                disabled={end.isPending}
                aria-label={`Sign out of ${s.browser}, last used ${moment(s.seen)}`}
                onClick={() => end.mutate(s.id)}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {end.error && <Problem error={end.error} />}
      {data.length > 1 && (
        <p className="mt-4">
          <Button disabled={end.isPending} onClick={() => end.mutate(undefined)}>
            Sign out everywhere else
          </Button>
        </p>
      )}
    </>
  )
}
