import { useEffect, useRef } from 'react'
import { useLocation, useMatches } from 'react-router'

/** Where a page's title stands among its route's own words. */
type Handle = { title?: string } | undefined

/** How long a page may take to come before the one who reads it waits at the page itself. */
const patience = 5_000 // milliseconds

/**
 * useArrival names the page in the browser's title and, when another page opens, puts the focus on
 * its heading: who hears the page begins to hear it there, and the next Tab goes on from it.
 */
export function useArrival() {
  const { pathname } = useLocation()
  const title = useMatches().reduce((last, m) => (m.handle as Handle)?.title ?? last, '')
  useEffect(() => {
    document.title = title ? `${title} · Early Chorus` : 'Early Chorus'
  }, [title])
  const first = useRef(true)
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page is another path
  useEffect(() => {
    // The browser does it by itself for the page that is opened first.
    if (first.current) {
      first.current = false
      return
    }
    const began = performance.now()
    let asked = requestAnimationFrame(function look() {
      // A page that has a field of its own to begin at has put the focus there.
      if (document.activeElement && document.activeElement !== document.body) return
      const heading = document.querySelector<HTMLElement>('#main h1')
      if (heading) {
        heading.tabIndex = -1
        heading.focus({ preventScroll: true })
        return
      }
      if (performance.now() - began < patience) asked = requestAnimationFrame(look)
    })
    return () => cancelAnimationFrame(asked)
  }, [pathname])
}
