import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Button } from '../../ui/Button'
import { shifted } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { DaysAndWhy } from '../class/DaysAndWhy'
import { useAddException, useRenewPIN } from '../class/queries'
import { PlayerKnows } from './PlayerKnows'

/** today is the school's date; name is how the player is called here. */
type Props = { classId: string; playerId: string; name: string; today: string }

/** PlayerActs is what a director does for one player wherever they see them: excuse, a new PIN, notes known. */
export function PlayerActs({ classId, playerId, name, today }: Props) {
  const excuse = useExcuse(classId, playerId)
  const renew = useRenewPIN(classId)
  const [knows, setKnows] = useState(false)
  const [longer, setLonger] = useState(false)
  return (
    <div>
      <div className="flex flex-wrap gap-3">
        <Button disabled={excuse.isPending} onClick={() => excuse.days(today, today)}>
          Excuse today
        </Button>
        <Button aria-expanded={longer} onClick={() => setLonger(!longer)}>
          Excuse for longer …
        </Button>
        <Button disabled={renew.isPending} onClick={() => renew.mutate(playerId)}>
          New PIN
        </Button>
        <Button aria-expanded={knows} onClick={() => setKnows(!knows)}>
          Notes known
        </Button>
      </div>
      {longer && <Longer today={today} onExcuse={excuse.days} />}
      <div aria-live="polite">
        {excuse.said && (
          <p className="mt-3">
            {name} is excused {excuse.said}. To end it: Class, Excused.
          </p>
        )}
        {renew.data && (
          <p className="mt-3">
            The new PIN is <strong className="font-serif text-2xl tracking-widest">{renew.data.pin}</strong>.{' '}
            <span className="text-soft">It is shown this once. The old one stops working.</span>
          </p>
        )}
      </div>
      {(excuse.error ?? renew.error) && <Problem error={excuse.error ?? renew.error} />}
      {knows && <PlayerKnows classId={classId} playerId={playerId} />}
    </div>
  )
}

/** useExcuse excuses a player from every step on some days; the board is asked anew. */
function useExcuse(classId: string, playerId: string) {
  const queries = useQueryClient()
  const add = useAddException(classId)
  const [said, setSaid] = useState('')
  const days = (from: string, to: string, why = '') =>
    add.mutate(
      { player_id: playerId, from, to, why },
      {
        onSuccess: () => {
          setSaid(from === to ? `on ${from}` : `from ${from} to ${to}`)
          void queries.invalidateQueries({ queryKey: ['today', classId] })
        },
      },
    )
  return { days, said, isPending: add.isPending, error: add.error }
}

/** Longer asks from when to when, and why. */
function Longer({ today, onExcuse }: { today: string; onExcuse: (from: string, to: string, why: string) => void }) {
  const [form, setForm] = useState({ from: today, to: shifted(today, 2), why: '' })
  const submit = (e: FormEvent) => {
    e.preventDefault()
    onExcuse(form.from, form.to, form.why)
  }
  return (
    <form className="mt-3 grid gap-3 sm:grid-cols-4" onSubmit={submit}>
      <DaysAndWhy value={form} onChange={setForm} />
      <p className="self-end">
        <Button type="submit" look="main">
          Excuse
        </Button>
      </p>
    </form>
  )
}
