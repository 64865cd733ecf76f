import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Navigate } from 'react-router'
import { lastClass } from '../features/class/lastClass'
import { classesQuery, meQuery } from '../features/signin'
import { Problem } from '../ui/Problem'
import { Waiting } from '../ui/Waiting'

/** A director's, and once: it comes when it is needed. */
const FirstClass = lazy(() => import('../features/class/FirstClass'))

/** Home leads everyone to where their work is. */
export function Home() {
  const { data: me, error } = useQuery(meQuery)
  const classes = useQuery({ ...classesQuery, enabled: me?.role === 'director' })
  if (error ?? classes.error) return <Problem error={error ?? classes.error} />
  if (!me) return <Waiting />
  if (me.role === 'nobody') return <Navigate to="/sign-in" replace />
  if (me.role === 'player') return <Navigate to="/practice" replace />
  if (me.role === 'family') return <Navigate to={`/child/${me.player_id}`} replace />
  if (me.role !== 'director') return <Navigate to={`/class/${me.class_id}`} replace />
  if (!classes.data) return <Waiting />
  const last = lastClass()
  const first = classes.data.find((c) => c.id === last) ?? classes.data[0]
  if (!first)
    return (
      <Suspense fallback={<Waiting />}>
        <FirstClass />
      </Suspense>
    )
  return <Navigate to={`/class/${first.id}`} replace />
}
