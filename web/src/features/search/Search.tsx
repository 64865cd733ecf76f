import { lazy, Suspense, useEffect, useState } from 'react'
import { Button } from '../../ui/Button'

const SearchSheet = lazy(() => import('./SearchSheet'))

/** Search finds a player, an exercise or a page, from any page: by its button, and by Ctrl or ⌘ and K. */
export function Search() {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.key.toLowerCase() !== 'k' || !(e.ctrlKey || e.metaKey) || e.altKey || e.shiftKey) return
      e.preventDefault() // the browser's own search line
      setOpen(true)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  return (
    <>
      <Button look="quiet" aria-keyshortcuts="Control+K Meta+K" onClick={() => setOpen(true)}>
        Search
      </Button>
      {open && (
        <Suspense>
          <SearchSheet onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
