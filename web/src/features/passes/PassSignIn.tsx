import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../../ui/Button'
import { codeOfAddress } from '../../ui/codeOfAddress'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { isShared, SharedDevice } from '../signin'
import { usePassSignIn } from './queries'

/**
 * PassSignIn lets an assistant, a substitute or a family in. A link brings its words along; they
 * are used when it is pressed, so that a mail program that opens links uses nothing.
 */
export function PassSignIn() {
  const [code, setCode] = useState(codeOfAddress)
  const enter = usePassSignIn()
  function submit(e: FormEvent) {
    e.preventDefault()
    enter.mutate({ code, shared: isShared() })
  }
  return (
    <div className="mx-auto max-w-md pt-8 sm:pt-16">
      <h1 className="text-2xl">Come in with your pass</h1>
      <p className="mt-2 text-soft">
        For those who help in a class, and for families. The director of the class gave it to you.
      </p>
      <form onSubmit={submit} className="mt-6 space-y-5">
        <Field
          label="The words of your pass"
          hint="Four words, with or without the dashes."
          value={code}
          onChange={(e) => setCode(e.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          required
        />
        <SharedDevice />
        {enter.error && <Problem error={enter.error} />}
        <p className="flex items-center gap-4">
          <Button type="submit" look="main" disabled={enter.isPending}>
            Come in
          </Button>
          <Link to="/sign-in" className="underline">
            I play, or I direct
          </Link>
        </p>
      </form>
    </div>
  )
}
