import { useEffect, useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { isKeyOfPage, SingleKeys } from '../../ui/singleKeys'

/** The keys of the page, for those who play with a keyboard in reach. */
const keys: [string, string][] = [
  ['r', 'record; again'],
  ['n', 'next step'],
  ['h', 'hear how it sounds'],
  ['Esc', 'stop the take and throw it away'],
  ['?', 'this sheet'],
]

/** KeySheet is the practice room's keys, and the page that lists them. */
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
      <Dialog open={open} onOpenChange={setOpen} title="Shortcuts">
        <dl className="mt-5 grid grid-cols-[4rem_1fr] gap-y-2">
          {keys.map(([key, does]) => (
            <div key={key} className="contents">
              <dt>
                <kbd className="rounded border border-edge bg-sheet px-2 font-serif">{key}</kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <SingleKeys />
      </Dialog>
    </>
  )
}
