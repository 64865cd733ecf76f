import { useEffect, useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'

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
      if (e.ctrlKey || e.metaKey || e.altKey || isWriting(e.target) || document.querySelector('[role=dialog]')) return
      if (e.key === '?') setOpen(true)
      else document.querySelector<HTMLElement>(`[data-key="${CSS.escape(e.key)}"]:not(:disabled)`)?.click()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)} aria-keyshortcuts="?">
        Keys
      </Button>
      <Dialog open={open} onOpenChange={setOpen} title="Keys">
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
      </Dialog>
    </>
  )
}

/**
 * isWriting reports whether a key is meant for a field: an "r" in a question must not
 * begin a take.
 */
function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      /^(textarea|select)$/i.test(target.tagName) ||
      (target instanceof HTMLInputElement && !/checkbox|radio/.test(target.type)))
  )
}
