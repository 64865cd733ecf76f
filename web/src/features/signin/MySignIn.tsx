import { useQuery } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { Failure } from '../../api/client'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { mySignInQuery, useEndCodes, useOfferCodes, useSetCodes, useWantSummary } from './queries'

/** MySignIn is what stands beside a director's password: a device's codes, and the weekly letter. */
export function MySignIn() {
  const { data } = useQuery(mySignInQuery)
  const weekly = useWantSummary()
  if (!data) return null
  return (
    <div className="mt-4 border-t border-rule pt-3">
      {data.codes ? <EndCodes /> : <Codes />}
      {data.mail && (
        <label className="mt-2 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={data.weekly}
            disabled={weekly.isPending}
            onChange={(e) => weekly.mutate(e.target.checked)}
          />
          A letter each Monday: how many practiced, and what waits
        </label>
      )}
      {weekly.error && <Problem error={weekly.error} />}
    </div>
  )
}

/** Codes begins to ask for a device's codes, once one of them was typed. */
function Codes() {
  const offer = useOfferCodes()
  const set = useSetCodes()
  const wrong = set.error instanceof Failure ? set.error.fields : {}
  if (!offer.data) {
    return (
      <p>
        <Button onClick={() => offer.mutate()}>Ask for a code of my phone, too</Button>
        <span className="mt-1 block text-sm text-soft">
          Six digits from an app for such codes, beside the password: who finds your password does not get in.
        </span>
      </p>
    )
  }
  const { secret, square } = offer.data
  function submit(e: FormEvent<HTMLFormElement>) {
    e.preventDefault()
    const said = new FormData(e.currentTarget)
    set.mutate({ secret, code: String(said.get('code')), now: String(said.get('now')) })
  }
  return (
    <form onSubmit={submit} className="space-y-3">
      <p>Scan the square with the app, or type the letters into it. Then type the six digits that it shows.</p>
      <img src={square} alt="The square to scan; the letters below say the same" className="size-44 bg-white p-2" />
      <p className="font-mono text-sm break-all">{secret}</p>
      <Field
        label="Six digits"
        name="code"
        inputMode="numeric"
        autoComplete="one-time-code"
        required
        problem={wrong.code}
      />
      <Field
        label="Your password, once more"
        name="now"
        type="password"
        autoComplete="current-password"
        required
        problem={wrong.now}
      />
      {set.error && Object.keys(wrong).length === 0 && <Problem error={set.error} />}
      <Button type="submit" look="main" disabled={set.isPending}>
        Ask for codes from now on
      </Button>
    </form>
  )
}

/** EndCodes ends it with a last code. */
function EndCodes() {
  const end = useEndCodes()
  const wrong = end.error instanceof Failure ? end.error.fields.code : undefined
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        end.mutate(String(new FormData(e.currentTarget).get('code')))
      }}
    >
      <Field
        label="A code of your phone is asked for. To end that, type one"
        name="code"
        inputMode="numeric"
        autoComplete="one-time-code"
        required
        problem={wrong}
      />
      <Button type="submit" disabled={end.isPending}>
        Ask for none
      </Button>
      {end.error && !wrong && <Problem error={end.error} />}
    </form>
  )
}
