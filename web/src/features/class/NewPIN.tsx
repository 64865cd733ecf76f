import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { type PlayerSetUp, useRenewPIN, useSignOutPlayer } from './queries'

/** NewPIN lets in a child who stands there: a new PIN on the screen, once, or signed out everywhere. */
export function NewPIN({ classId, player: p }: { classId: string; player: PlayerSetUp }) {
  const [open, setOpen] = useState(false)
  const renew = useRenewPIN(classId)
  const signOut = useSignOutPlayer(classId)
  const name = `${p.first} ${p.last}`
  return (
    <>
      <Button look="quiet" aria-label={`Sign-in of ${name}`} onClick={() => setOpen(true)}>
        Sign-in
      </Button>
      {open && (
        <Dialog open onOpenChange={setOpen} title={`Sign-in of ${name}`}>
          {renew.data ? (
            <p className="mt-4" role="status">
              The new PIN is <strong className="font-serif text-3xl tracking-widest">{renew.data.pin}</strong>
              <span className="mt-2 block text-soft">
                It is shown this once. The old one, and the PIN on the card, stop working.
              </span>
            </p>
          ) : (
            <>
              <p className="mt-4">A new PIN works at once, for a child who forgot it, or whose PIN others know.</p>
              <p className="mt-3">
                <Button look="main" disabled={renew.isPending} onClick={() => renew.mutate(p.id)}>
                  New PIN
                </Button>
              </p>
            </>
          )}
          <p className="mt-6">Left signed in on somebody else’s device? The PIN stays as it is.</p>
          <p className="mt-3 flex items-center gap-4">
            <Button disabled={signOut.isPending} onClick={() => signOut.mutate(p.id)}>
              Sign out everywhere
            </Button>
            <span aria-live="polite" className="text-soft">
              {signOut.isSuccess && `${p.first} is signed out everywhere.`}
            </span>
          </p>
          {(renew.error ?? signOut.error) && <Problem error={renew.error ?? signOut.error} />}
        </Dialog>
      )}
    </>
  )
}
