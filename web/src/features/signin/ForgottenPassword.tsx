import { type FormEvent, useState } from 'react'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useForgotten } from './queries'

/** ForgottenPassword has a letter sent; it says the same whether there is an account or not. */
export function ForgottenPassword() {
  const [open, setOpen] = useState(false)
  const forgotten = useForgotten()
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    forgotten.mutate(String(new FormData(e.currentTarget).get('address')))
  }
  if (!open) {
    return (
      <p className="mt-6">
        <Button look="quiet" onClick={() => setOpen(true)}>
          I forgot my password
        </Button>
      </p>
    )
  }
  if (forgotten.isSuccess) {
    return (
      <p role="status" className="mt-6 border-l-4 border-clean pl-3">
        If there is an account under this address, a letter is on its way. Its link is good for an hour.
      </p>
    )
  }
  return (
    <form onSubmit={submit} className="mt-6 space-y-3 border-t border-rule pt-4">
      <Field label="The email you sign in with" name="address" type="email" autoComplete="username" required />
      {forgotten.error && <Problem error={forgotten.error} />}
      <Button type="submit" disabled={forgotten.isPending}>
        Send me a letter
      </Button>
    </form>
  )
}
