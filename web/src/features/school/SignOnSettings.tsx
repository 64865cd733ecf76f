import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type School, useEndSignOn, useSaveSignOn } from './queries'

/** SignOnSettings lets a school's people in with the accounts they have (OpenID Connect). */
export function SignOnSettings({ school }: { school: School }) {
  const [open, setOpen] = useState(false)
  const save = useSaveSignOn(school.id)
  const end = useEndSignOn(school.id)
  const { sign_on: now } = school
  const wrong = save.error instanceof Failure ? save.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const said = new FormData(e.currentTarget)
    const text = (name: string) => String(said.get(name) ?? '')
    save.mutate(
      {
        issuer: text('issuer'),
        client_id: text('client'),
        client_secret: text('secret'),
        domains: text('domains')
          .split(/[\s,]+/)
          .filter(Boolean),
        roster_claim: text('claim'),
      },
      { onSuccess: () => setOpen(false) },
    )
  }
  return (
    <section aria-label="School accounts" className="mt-8">
      <h2>School accounts</h2>
      <p className="text-soft">
        {now
          ? `People sign in through ${now.issuer}. Directors are known by their address, players by their number on the list (${now.roster_claim}).`
          : 'People may sign in with the accounts they have, where the school’s provider speaks OpenID Connect. Cards and passwords go on working.'}
      </p>
      {!open ? (
        <p className="mt-2 flex gap-3">
          <Button onClick={() => setOpen(true)}>{now ? 'Change it' : 'Set it up'}</Button>
          {now && (
            <Button look="quiet" disabled={end.isPending} onClick={() => end.mutate(undefined)}>
              End it
            </Button>
          )}
        </p>
      ) : (
        <form onSubmit={submit} className="mt-3 grid max-w-2xl gap-3 sm:grid-cols-2">
          <p className="text-sm sm:col-span-2">
            Tell the provider to send people back to <code className="break-all">{school.redirect}</code>
          </p>
          <Field
            label="Its address (issuer)"
            name="issuer"
            type="url"
            required
            defaultValue={now?.issuer}
            problem={wrong.issuer}
            className="sm:col-span-2"
          />
          <Field label="Client id" name="client" required defaultValue={now?.client_id} problem={wrong.client_id} />
          <Field
            label="Client secret"
            name="secret"
            type="password"
            autoComplete="off"
            hint={now ? 'Leave it empty to keep the one that is there.' : undefined}
            problem={wrong.client_secret}
          />
          <Field
            label="Addresses that are let in"
            name="domains"
            hint="Such as quillmarsh.example; none lets any of the provider’s in."
            defaultValue={now?.domains.join(', ')}
            problem={wrong.domains}
          />
          <Field
            label="The claim with a player’s number"
            name="claim"
            hint="As it stands on the class list."
            defaultValue={now?.roster_claim ?? 'sub'}
            problem={wrong.roster_claim}
          />
          {save.error && Object.keys(wrong).length === 0 && <Problem error={save.error} />}
          <p className="flex gap-3 sm:col-span-2">
            <Button type="submit" look="main" disabled={save.isPending}>
              Ask it, and save
            </Button>
            <Button look="quiet" onClick={() => setOpen(false)}>
              Leave it
            </Button>
          </p>
        </form>
      )}
      {end.error && <Problem error={end.error} />}
    </section>
  )
}
