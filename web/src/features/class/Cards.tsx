import { useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { type SetUp, useRenewCode } from './queries'

/** Cards prints how players sign in. PINs are not kept as such, so new cards mean new PINs. */
export function Cards({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const [open, setOpen] = useState(false)
  const [problem, setProblem] = useState<unknown>()
  const renew = useRenewCode(classId)
  const print = async (players: string) => {
    setProblem(undefined)
    try {
      // Not the typed client: the answer is a file, and printing is a POST since it makes new
      // PINs.
      const response = await fetch(`/api/classes/${classId}/cards.pdf?players=${players}`, { method: 'POST' })
      if (!response.ok) throw new Failure(response.status, await response.json())
      const address = URL.createObjectURL(await response.blob())
      // The browser saves what a link downloads; a window that opens late would be blocked.
      const link = document.createElement('a')
      link.href = address
      link.download = 'cards.pdf'
      link.click()
      // Some browsers read the address after the press; a minute is long enough for all.
      setTimeout(() => URL.revokeObjectURL(address), 60_000)
    } catch (error) {
      setProblem(error)
    }
  }
  return (
    <>
      <Button onClick={() => setOpen(true)}>Sign-in cards</Button>
      {open && (
        <Dialog
          open
          onOpenChange={setOpen}
          title="Sign-in cards"
          says="Ten to a page, to cut out: the address, the class code, each player’s PIN."
        >
          <p className="mt-4 border-l-4 border-nearly pl-3">
            PINs are kept so that nobody can read them, you included. Printing a card gives its player a new PIN; the
            old card stops working.
          </p>
          <p className="mt-4 flex flex-wrap gap-3">
            {/* First in line and safe: nobody's card stops working by it. */}
            <Button look="main" onClick={() => void print('new')}>
              For players without a PIN
            </Button>
            <Button onClick={() => void print('')}>For all {setUp.players.length} players</Button>
          </p>
          {problem !== undefined && <Problem error={problem} />}
          <h3 className="mt-6">The class code</h3>
          <p className="mt-1">
            <span className="font-serif text-lg">{setUp.class.code}</span>
            {setUp.weak_code && (
              <span className="text-soft"> is short and could be guessed. Give the class a new one.</span>
            )}
          </p>
          <p className="mt-2">
            <Button disabled={renew.isPending} onClick={() => renew.mutate()}>
              New class code
            </Button>
          </p>
          <p className="mt-1 text-sm text-soft">
            The old one stops working; who is signed in stays so. Cards carry the code: print new ones after it.
          </p>
          {renew.error && <Problem error={renew.error} />}
          <h3 className="mt-6">For one player</h3>
          <ul className="mt-2 columns-2">
            {setUp.players.map((p) => (
              <li key={p.id}>
                <Button look="quiet" onClick={() => void print(p.id)}>
                  {p.first} {p.last}
                </Button>
              </li>
            ))}
          </ul>
        </Dialog>
      )}
    </>
  )
}
