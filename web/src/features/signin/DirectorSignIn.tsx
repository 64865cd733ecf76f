import type { FormEvent } from 'react'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useDirectorSignIn } from './queries'
import { SharedDevice } from './SharedDevice'

/**
 * DirectorSignIn reads its fields when they are sent, so that a password manager may
 * fill them in any way it likes.
 */
export function DirectorSignIn() {
  const signIn = useDirectorSignIn()
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const form = new FormData(e.currentTarget)
    signIn.mutate({
      email: String(form.get('email')),
      password: String(form.get('password')),
      shared: form.get('shared') === 'on',
    })
  }
  return (
    <form onSubmit={submit} className="space-y-5">
      <Field label="Email" name="email" type="email" autoComplete="username" required />
      <Field label="Password" name="password" type="password" autoComplete="current-password" required />
      <SharedDevice />
      {signIn.error && <Problem error={signIn.error} />}
      <Button type="submit" look="main" disabled={signIn.isPending}>
        Sign in
      </Button>
    </form>
  )
}
