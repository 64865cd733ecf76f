import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Link, Navigate, Outlet, useLocation } from 'react-router'
import { Help } from '../features/help'
import { Search } from '../features/search'
import { Invitations, meQuery, SignOut } from '../features/signin'
import { useArrival } from './useArrival'

// A director's; players need not load it.
const WhereSignedIn = lazy(async () => ({
  default: (await import('../features/signin/WhereSignedIn')).WhereSignedIn,
}))

/** Pages that are there for whoever has not signed in. */
const open = ['/sign-in', '/pass', '/new-password', '/which-class', '/privacy', '/stand-in', '/gallery']

/** Shell is the page's head and the room below it. */
export function Shell() {
  const { data: me } = useQuery(meQuery)
  useArrival()
  const { pathname, search } = useLocation()
  const signedIn = me && me.role !== 'nobody'
  return (
    <div className="mx-auto max-w-[86rem] px-4 pb-16 sm:px-8">
      <a href="#main" className="sr-only focus:not-sr-only">
        Skip to the page
      </a>
      <header className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 pt-4 pb-3">
        <Link to="/" className="font-serif text-lg italic no-underline">
          Early Chorus
        </Link>
        {signedIn && (
          <p className="no-print flex flex-wrap items-baseline gap-x-4 text-sm text-soft">
            <span>
              {me.name}
              {me.class && ` · ${me.class}`}
            </span>
            {me.schools?.map((s) => (
              <Link key={s.id} to={`/school/${s.id}`} className="underline">
                Administer {s.name}
              </Link>
            ))}
            {me.role === 'director' && <Search />}
            <Help />
            <Suspense>{me.role === 'director' && <WhereSignedIn />}</Suspense>
            <SignOut player={me.role === 'player' ? me.id : undefined} />
          </p>
        )}
      </header>
      <main id="main">
        {me?.role === 'director' && <Invitations />}
        {/* A session ends elsewhere, too: who is out is led in again, and not told off. */}
        {me?.role === 'nobody' && !open.some((p) => pathname.startsWith(p)) && pathname !== '/' ? (
          <Navigate to={`/sign-in?to=${encodeURIComponent(pathname + search)}`} replace />
        ) : (
          <Outlet />
        )}
      </main>
      <footer className="no-print mt-16 border-t border-rule pt-3 text-sm text-soft">
        <Link to="/privacy" className="underline">
          What is kept of a child
        </Link>
      </footer>
    </div>
  )
}
