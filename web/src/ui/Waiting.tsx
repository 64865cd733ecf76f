import { useEffect, useState } from 'react'

/** Waiting shows nothing for half a second, so that quick answers do not flash. */
export function Waiting({ what = 'One moment' }: { what?: string }) {
  const [slow, setSlow] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), 500)
    return () => clearTimeout(timer)
  }, [])
  return (
    <p role="status" className="min-h-12 py-3 text-soft">
      {slow && `${what} …`}
    </p>
  )
}
