import { Link } from 'react-router'

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
