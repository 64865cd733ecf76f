import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { mondayOf } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { catalogueQuery, planQuery } from '../plan/queries'
import { DaysAndWhy } from './DaysAndWhy'
import { type SetUp, useAddException, useEndException } from './queries'

/** Excused lists who is asked for nothing on some days, or not for one step of this week. */
export function Excused({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const add = useAddException(classId)
  const end = useEndException(classId)
  const [form, setForm] = useState({
    player_id: setUp.players[0]?.id ?? '',
    step_id: '',
    from: setUp.today,
    to: setUp.today,
    why: '',
  })
  const steps = useSteps(classId, setUp.today)
  const name = (id: string) => {
    const p = setUp.players.find((x) => x.id === id)
    // An exception outlives its player's place on the list; its name goes with them.
    return p ? `${p.first} ${p.last}` : 'somebody who left'
  }
  return (
    <div className="max-w-2xl">
      <p className="text-soft">Whoever is ill or away is asked for nothing, and is not counted as missing.</p>
      <form
        className="mt-3 grid gap-3 sm:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault()
          // The server takes no empty step: without one, every step is meant.
          const { step_id, ...every } = form
          add.mutate(step_id ? form : every)
        }}
      >
        <Choice
          label="Player"
          value={form.player_id}
          options={setUp.players.map((p) => ({ key: p.id, label: `${p.first} ${p.last}` }))}
          onChange={(player_id) => setForm({ ...form, player_id })}
        />
        <Choice
          label="Of"
          value={form.step_id}
          options={[{ key: '', label: 'every step' }, ...steps]}
          onChange={(step_id) => setForm({ ...form, step_id })}
        />
        <DaysAndWhy value={form} onChange={(days) => setForm({ ...form, ...days })} />
        <p className="self-end">
          <Button type="submit" look="main" disabled={add.isPending || !form.player_id}>
            Excuse
          </Button>
        </p>
      </form>
      {(add.error ?? end.error) && <Problem error={add.error ?? end.error} />}
      <ul className="mt-5 divide-y divide-rule border-y border-rule">
        {setUp.exceptions.map((e) => (
          <li key={e.id} className="flex min-h-10 items-center justify-between gap-3">
            <span>
              {name(e.player_id)}{' '}
              <span className="text-sm text-soft">
                {/* Most absences are one day, and one day needs no "from" and "to". */}
                {e.from === e.to ? e.from : `${e.from} to ${e.to}`}
                {e.step_id && `, of ${steps.find((s) => s.key === e.step_id)?.label ?? 'one step'}`}
                {e.why && `, ${e.why}`}
              </span>
            </span>
            <Button look="quiet" onClick={() => end.mutate(e.id)}>
              End it
            </Button>
          </li>
        ))}
        {setUp.exceptions.length === 0 && <li className="py-2 text-soft">Nobody is excused.</li>}
      </ul>
    </div>
  )
}

/** useSteps are this week's steps, in order, each by its kind's name. */
function useSteps(classId: string, today: string): { key: string; label: string }[] {
  // Only this week's steps are offered: a player is excused from what is asked now.
  const week = useQuery(planQuery(classId, mondayOf(today)))
  const catalogue = useQuery(catalogueQuery)
  const kind = (key: string) => catalogue.data?.kinds.find((k) => k.key === key)?.name ?? key
  return (week.data?.items ?? []).map((i, n) => ({ key: i.key, label: `${n + 1}. ${kind(i.kind)}` }))
}
