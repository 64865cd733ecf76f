import { Link } from 'react-router'

/** Guessed tells a director that somebody tries PINs, and how to let a child in. */
export function Guessed({ classId, tries }: { classId: string; tries: number }) {
  if (tries === 0) return null
  return (
    <p role="status" className="mb-4 border-l-4 border-nearly pl-3">
      Somebody tried {tries} wrong PINs in this class today. Players wait longer to sign in on a device that is new to
      them.{' '}
      <Link className="underline" to={`/class/${classId}/set-up`}>
        Let a child in with a new PIN
      </Link>
    </p>
  )
}
