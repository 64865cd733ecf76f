import { useState } from 'react'
import { waitingOf } from '../../device/waiting'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { useSignOut } from './queries'

/** SignOut leaves nothing readable on the device; what still waits there is said first. */
export function SignOut({ player }: { player: string | undefined }) {
  const signOut = useSignOut()
  const [waits, setWaits] = useState(0)
  async function leave() {
    // A device that cannot say what waits must not keep anybody signed in.
    const count = player ? await waitingOf(player).catch(() => 0) : 0
    if (count > 0) setWaits(count)
    else signOut.mutate()
  }
  return (
    <>
      <Button look="quiet" onClick={() => void leave()} disabled={signOut.isPending}>
        Sign out
      </Button>
      <Dialog
        open={waits > 0}
        onOpenChange={() => setWaits(0)}
        title={waits === 1 ? 'One thing is still on this device' : `${waits} things are still on this device`}
        says="They stay here under lock: nobody can hear or read them. They go up when you sign in on this device again."
      >
        <p className="mt-5 flex flex-wrap gap-3">
          {/* Staying is the large choice: takes that go up now are heard today. */}
          <Button size="large" look="main" onClick={() => setWaits(0)}>
            Stay, and send them first
          </Button>
          <Button
            size="large"
            onClick={() => {
              setWaits(0)
              signOut.mutate()
            }}
          >
            Sign out now
          </Button>
        </p>
      </Dialog>
    </>
  )
}
