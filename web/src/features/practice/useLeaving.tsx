import { useEffect } from 'react'
import { useBlocker } from 'react-router'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'

/**
 * useLeaving asks before a page is left in the middle of a take, by Back, a link, a reload or
 * a closed window: what was played would be gone without a word. It returns the question.
 */
export function useLeaving(recording: boolean) {
  const blocker = useBlocker(recording)
  useEffect(() => {
    if (!recording) return
    const ask = (e: BeforeUnloadEvent) => e.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [recording])
  if (blocker.state !== 'blocked') return null
  return (
    <Dialog
      open
      onOpenChange={() => blocker.reset()}
      title="Your take is not kept yet"
      says="If you leave now, it is thrown away."
    >
      <p className="mt-5 flex flex-wrap gap-3">
        <Button look="main" size="large" onClick={() => blocker.reset()}>
          Stay here
        </Button>
        <Button size="large" onClick={() => blocker.proceed()}>
          Leave, and throw it away
        </Button>
      </p>
    </Dialog>
  )
}
