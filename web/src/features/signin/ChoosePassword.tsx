import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { codeOfAddress } from '../../ui/codeOfAddress'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useChoosePassword } from './queries'

/** ChoosePassword is where a letter about a forgotten password leads. */
export function ChoosePassword() {
  const [token] = useState(codeOfAddress)
  const choose = useChoosePassword()
  const wrong = choose.error instanceof Failure ? choose.error.fields : {}
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    choose.mutate({ token, password: String(new FormData(e.currentTarget).get('password')) })
  }
  return (
    <div className="mx-auto max-w-md pt-8 sm:pt-16">
      <h1 className="text-2xl">Choose a new password</h1>
      {choose.isSuccess ? (
        <p role="status" className="mt-4">
          It is changed, and every device is signed out.{' '}
          <Link to="/sign-in" className="underline">
            Sign in with it
          </Link>
        </p>
      ) : (
        <form onSubmit={submit} className="mt-6 space-y-5">
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
          {choose.error && Object.keys(wrong).length === 0 && <Problem error={choose.error} />}
          <Button type="submit" look="main" disabled={choose.isPending}>
            Change it
          </Button>
        </form>
      )}
    </div>
  )
}
