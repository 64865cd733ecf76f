/** Problem says what went wrong, in the server's words where it has any. */
export function Problem({ error }: { error: unknown }) {
  const message = error instanceof Error ? error.message : 'Something went wrong.'
  const offline = error instanceof TypeError
  return (
    <p role="alert" className="border-l-4 border-not-yet bg-warm-wash px-4 py-3">
      {offline ? 'The server cannot be reached. Check the network and try again.' : message}
    </p>
  )
}
