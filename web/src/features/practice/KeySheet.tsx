import { lazy, Suspense, useEffect, useState } from 'react'
import { Button } from '../../ui/Button'
import { isKeyOfPage } from '../../ui/singleKeys'

const KeyList = lazy(() => import('./KeyList'))

/** KeySheet is the practice room's keys, and what opens the sheet that lists them. */
export function KeySheet() {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!isKeyOfPage(e) || document.querySelector('[role=dialog]')) return
      if (e.key === '?') setOpen(true)
      else document.querySelector<HTMLElement>(`[data-key="${CSS.escape(e.key)}"]:not(:disabled)`)?.click()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  return (
    <>
      {/* A phone has no keys to be told of. */}
      <Button
        look="quiet"
        className="pointer-coarse:hidden"
        onClick={() => setOpen(true)}
        aria-keyshortcuts="?"
        data-own-help
      >
        Shortcuts
      </Button>
      {open && (
        <Suspense>
          <KeyList onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
