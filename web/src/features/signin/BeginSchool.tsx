import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useBeginSchool } from './queries'

/** Where the browser says it is: right for nearly everyone, and changed in a moment. */
const here = () => Intl.DateTimeFormat().resolvedOptions().timeZone

/** BeginSchool sets the first school up, for whoever has the code that the program printed. */
export function BeginSchool() {
  const begin = useBeginSchool()
  const [zone, setZone] = useState(here)
  const wrong = begin.error instanceof Failure ? begin.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = new FormData(e.currentTarget)
    const text = (name: string) => String(form.get(name) ?? '')
    begin.mutate({
      code: text('code'),
      school: text('school'),
      time_zone: zone,
      name: text('name'),
      email: text('email'),
      password: text('password'),
    })
  }
  return (
    <div className="mx-auto max-w-md pt-8 sm:pt-12">
      <h1 className="text-2xl">Set up your school</h1>
      <p className="mt-2 text-soft">
        There is no school here yet. You become its administrator; classes, players and colleagues come next.
      </p>
      <form onSubmit={submit} className="mt-6 space-y-5">
        <Field
          label="Code"
          name="code"
          required
          autoComplete="off"
          hint="Four words: the program printed them when it started."
          problem={wrong.code}
        />
        <Field label="Name of the school" name="school" required maxLength={100} problem={wrong.school} />
        <Field
          label="Time zone"
          name="time_zone"
          required
          list="time-zones"
          value={zone}
          hint="It decides what today is."
          problem={wrong.time_zone}
          onChange={(e) => setZone(e.target.value)}
        />
        <datalist id="time-zones">
          {Intl.supportedValuesOf('timeZone').map((z) => (
            <option key={z} value={z} />
          ))}
        </datalist>
        <Field label="Your name" name="name" required maxLength={80} autoComplete="name" problem={wrong.name} />
        <Field label="Your email" name="email" type="email" required autoComplete="username" problem={wrong.email} />
        <Field
          label="Password"
          name="password"
          type="password"
          required
          minLength={12}
          autoComplete="new-password"
          hint="At least 12 letters. Four words that have nothing to do with each other do well."
          problem={wrong.password}
        />
        {begin.error && Object.keys(wrong).length === 0 && <Problem error={begin.error} />}
        <Button type="submit" look="main" disabled={begin.isPending}>
          Begin
        </Button>
      </form>
    </div>
  )
}
