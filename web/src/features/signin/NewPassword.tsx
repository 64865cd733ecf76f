import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useChangePassword } from './queries'

/** NewPassword changes one's own password; other devices are signed out with it. */
export function NewPassword() {
  const [open, setOpen] = useState(false)
  const change = useChangePassword()
  const wrong = change.error instanceof Failure ? change.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = new FormData(e.currentTarget)
    change.mutate(
      { now: String(form.get('now')), password: String(form.get('password')) },
      { onSuccess: () => setOpen(false) },
    )
  }
  if (!open) {
    return (
      <p className="mt-4">
        <Button onClick={() => setOpen(true)}>Change your password</Button>
        {change.isSuccess && (
          <span role="status" className="ml-3 text-sm">
            Changed. Every other device is signed out.
          </span>
        )}
      </p>
    )
  }
  return (
    <form onSubmit={submit} className="mt-4 space-y-3 border-t border-rule pt-3">
      <Field
        label="Password as it is now"
        name="now"
        type="password"
        required
        autoComplete="current-password"
        problem={wrong.now}
      />
      <Field
        label="New password"
        name="password"
        type="password"
        required
        minLength={12}
        autoComplete="new-password"
        hint="At least 12 letters; four words do well."
        problem={wrong.password}
      />
      {change.error && Object.keys(wrong).length === 0 && <Problem error={change.error} />}
      <Button type="submit" look="main" disabled={change.isPending}>
        Change it
      </Button>
    </form>
  )
}
