import { Failure } from '../api/client'

/** Problem says what went wrong, in the server's words where it has any. */
export function Problem({ error }: { error: unknown }) {
  const message = error instanceof Error ? error.message : 'Something went wrong.'
  const offline = error instanceof TypeError
  return (
    <p role="alert" className="border-l-4 border-not-yet bg-warm-wash px-4 py-3">
      {offline ? 'The server cannot be reached. Check the network and try again.' : message}
      {/* The whole page is asked for anew: nothing of who was here before stays in it. */}
      {error instanceof Failure && error.status === 401 && window.location.pathname !== '/sign-in' && (
        <>
          {' '}
          <a href="/sign-in" className="underline">
            Sign in
          </a>
        </>
      )}
    </p>
  )
}
