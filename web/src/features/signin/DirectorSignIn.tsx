import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { ForgottenPassword } from './ForgottenPassword'
import { beginningQuery, useDirectorSignIn } from './queries'
import { SharedDevice } from './SharedDevice'

/**
 * DirectorSignIn reads its fields when they are sent, so that a password manager may
 * fill them in any way it likes.
 */
export function DirectorSignIn() {
  const signIn = useDirectorSignIn()
  const { data: beginning } = useQuery(beginningQuery)
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = new FormData(e.currentTarget)
    signIn.mutate({
      email: String(form.get('email')),
      password: String(form.get('password')),
      shared: form.get('shared') === 'on',
      ...(form.get('code') ? { code: String(form.get('code')) } : {}),
    })
  }
  // The server asks for the code of a device once the password was right.
  const wrong = signIn.error instanceof Failure ? signIn.error.fields.code : undefined
  const [asked, setAsked] = useState(false)
  if (wrong && !asked) setAsked(true)
  return (
    <>
      <form onSubmit={submit} className="space-y-5">
        <Field label="Email" name="email" type="email" autoComplete="username" required />
        <Field label="Password" name="password" type="password" autoComplete="current-password" required />
        {asked && (
          <Field
            label="Code"
            name="code"
            inputMode="numeric"
            autoComplete="one-time-code"
            // It has just come: the next keys are its digits.
            autoFocus
            problem={wrong}
          />
        )}
        <SharedDevice />
        {signIn.error && !wrong && <Problem error={signIn.error} />}
        <Button type="submit" look="main" disabled={signIn.isPending}>
          Sign in
        </Button>
      </form>
      {beginning?.mail && <ForgottenPassword />}
    </>
  )
}
