import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type Member, type School, useAddPerson, useRemovePerson, useResetPassword, useSetRights } from './queries'

/** People are a school's directors and administrators; each is added, let in anew, or taken out here. */
export function People({ school }: { school: School }) {
  return (
    <section aria-label="People" className="mt-6">
      <h2>People</h2>
      {school.password && (
        <p role="status" className="mt-2 border-l-4 border-nearly pl-3">
          The password of {school.for} is <strong className="font-serif text-lg">{school.password}</strong>. It is shown
          this once: write it down for them. They change it under “My sign-in”.
        </p>
      )}
      <ul className="mt-3">
        {school.people.map((p) => (
          <PersonRow key={p.id} school={school.id} person={p} />
        ))}
      </ul>
      <AddPerson school={school.id} />
    </section>
  )
}

function PersonRow({ school, person: p }: { school: string; person: Member }) {
  const reset = useResetPassword(school)
  const rights = useSetRights(school)
  const remove = useRemovePerson(school)
  const [sure, setSure] = useState(false)
  const error = reset.error ?? rights.error ?? remove.error
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="min-w-56 grow">
          {p.name}
          <span className="block text-sm text-soft">
            {p.email} · {p.classes} {p.classes === 1 ? 'class' : 'classes'}
            {p.administers && ' · administrator'}
            {p.you && ' · you'}
          </span>
        </span>
        {!p.you && (
          <>
            <Button look="quiet" aria-label={`New password for ${p.name}`} onClick={() => reset.mutate(p.id)}>
              New password
            </Button>
            <Button look="quiet" onClick={() => rights.mutate({ person: p.id, administers: !p.administers })}>
              {p.administers ? 'No longer administrator' : 'Make administrator'}
            </Button>
            {sure ? (
              <Button onClick={() => remove.mutate(p.id)}>Yes, take {p.name} out</Button>
            ) : (
              <Button look="quiet" aria-label={`Take ${p.name} out`} onClick={() => setSure(true)}>
                Take out
              </Button>
            )}
          </>
        )}
      </div>
      {error && <Problem error={error} />}
    </li>
  )
}

function AddPerson({ school }: { school: string }) {
  const add = useAddPerson(school)
  const wrong = add.error instanceof Failure ? add.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = e.currentTarget
    const said = new FormData(form)
    add.mutate(
      {
        name: String(said.get('name')),
        email: String(said.get('email')),
        administers: said.get('administers') === 'on',
      },
      { onSuccess: () => form.reset() },
    )
  }
  return (
    <form onSubmit={submit} className="mt-4 flex flex-wrap items-end gap-3">
      <Field label="Name" name="name" required maxLength={80} problem={wrong.name} />
      <Field label="Email" name="email" type="email" required problem={wrong.email} />
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" name="administers" className="size-5" />
        administers, too
      </label>
      <Button type="submit" look="main" disabled={add.isPending}>
        Add a director
      </Button>
      {add.error && Object.keys(wrong).length === 0 && <Problem error={add.error} />}
    </form>
  )
}
