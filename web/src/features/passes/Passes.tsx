import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { longDay, shifted } from '../../ui/days'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { NewPassWords } from './NewPassWords'
import { type NewPass, passesQuery, useAddPass, useEndPass } from './queries'

/** What a role sees, said before anybody is let in. */
const roles = [
  { key: 'substitute', label: 'Substitute: today’s board, and playing with the class' },
  { key: 'assistant', label: 'Assistant: the same, and hears recordings' },
  { key: 'family', label: 'Family: how one player has grown, and what you said' },
] as const

/** players are the class's, to choose a family's child from; today is the school's date. */
type Props = { classId: string; players: { id: string; name: string }[]; today: string }

/** Passes lets helpers and families in until a day, and ends it. */
export function Passes({ classId, players, today }: Props) {
  const { data, error } = useQuery(passesQuery(classId))
  const end = useEndPass(classId)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting />
  return (
    <section aria-label="Passes" className="mt-8">
      <h2>Who comes in by a pass</h2>
      <p className="text-soft">
        Without an account, until a day. They change nothing, and what they see is written down.
      </p>
      <ul className="mt-2 max-w-2xl">
        {data.passes.map((p) => (
          <li key={p.id} className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 border-b border-rule">
            <span>
              {p.name}
              <span className="text-sm text-soft">
                {' '}
                · {p.role}
                {p.player && ` of ${p.player}`}
                {p.role === 'substitute' && p.hears && ', hears recordings'} · until {longDay(p.until)}
                {p.email && ` · letters to ${p.email}`}
              </span>
            </span>
            <Button
              look="quiet"
              disabled={end.isPending}
              aria-label={`End the pass of ${p.name}`}
              onClick={() => end.mutate(p.id)}
            >
              End it
            </Button>
          </li>
        ))}
        {data.passes.length === 0 && <li className="text-soft">Nobody yet.</li>}
      </ul>
      {end.error && <Problem error={end.error} />}
      <AddPass classId={classId} players={players} today={today} />
    </section>
  )
}

/** AddPass asks who, for what, until when; the words then stand on the screen, once. */
function AddPass({ classId, players, today }: Props) {
  const add = useAddPass(classId)
  const [role, setRole] = useState<NewPass['role']>('substitute')
  const [player, setPlayer] = useState('')
  const wrong = add.error instanceof Failure ? add.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = e.currentTarget
    const said = new FormData(form)
    add.mutate(
      {
        role,
        name: String(said.get('name')),
        until: String(said.get('until')),
        hears: said.get('hears') === 'on',
        ...(role === 'family' ? { player, email: String(said.get('email')) } : {}),
      },
      { onSuccess: () => form.reset() },
    )
  }
  return (
    <>
      {add.data?.code && <NewPassWords made={add.data} />}
      <form onSubmit={submit} aria-label="Let somebody in" className="mt-4 grid max-w-2xl gap-3 sm:grid-cols-2">
        <div className="sm:col-span-2">
          <Choice label="As" value={role} options={[...roles]} onChange={(r) => setRole(r as NewPass['role'])} />
        </div>
        {role === 'family' && (
          <Choice
            label="Of"
            value={player}
            problem={wrong.player}
            options={[{ key: '', label: 'choose …' }, ...players.map((p) => ({ key: p.id, label: p.name }))]}
            onChange={setPlayer}
          />
        )}
        <Field label="Whose pass it is" name="name" required maxLength={80} problem={wrong.name} />
        <Field
          key={role}
          label="Last day"
          name="until"
          type="date"
          required
          min={today}
          defaultValue={shifted(today, role === 'substitute' ? 0 : 365)}
          problem={wrong.until}
        />
        {role === 'family' && (
          <Field
            label="Email, for a letter on Mondays"
            name="email"
            type="email"
            hint="Only if the family wants it; otherwise leave it empty."
            problem={wrong.email}
          />
        )}
        {role === 'substitute' && (
          <label className="flex min-h-11 items-center gap-2 sm:col-span-2">
            <input type="checkbox" name="hears" className="size-5" />
            hears recordings, too
          </label>
        )}
        {add.error && Object.keys(wrong).length === 0 && <Problem error={add.error} />}
        <p>
          <Button type="submit" disabled={add.isPending}>
            Make the pass
          </Button>
        </p>
      </form>
    </>
  )
}
