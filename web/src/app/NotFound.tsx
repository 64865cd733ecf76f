import { Link } from 'react-router'

/** NotFound leads on: an old link is usually somebody's own page. */
export function NotFound() {
  return (
    <div className="py-16">
      <h1>There is no page here</h1>
      <p className="mt-3">
        <Link className="text-warm underline" to="/">
          Go to your own page
        </Link>
      </p>
    </div>
  )
}
