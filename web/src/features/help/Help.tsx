import { lazy, Suspense, useEffect, useState } from 'react'
import { useMatches } from 'react-router'
import { Button } from '../../ui/Button'
import { isKeyOfPage } from '../../ui/singleKeys'

const HelpSheet = lazy(() => import('./HelpSheet'))

/** Help is on every page: by its button, and by "?" where the page has no sheet of keys of its own. */
export function Help() {
  const [open, setOpen] = useState(false)
  const handle = useMatches().at(-1)?.handle as { title?: string } | undefined
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.key !== '?' || !isKeyOfPage(e) || document.querySelector('[role=dialog]')) return
      if (!document.querySelector('[data-own-help]')) setOpen(true)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        Help
      </Button>
      {open && (
        <Suspense>
          <HelpSheet title={handle?.title ?? ''} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
