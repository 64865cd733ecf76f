import { Dialog as Radix } from 'radix-ui'
import { type ReactNode, useRef } from 'react'
import { Button } from './Button'

/** onOpenChange is called with false by the escape key, by the button and by a press outside the sheet. */
type Props = { open: boolean; onOpenChange: (open: boolean) => void; title: string; says?: string; children: ReactNode }

/** Dialog is a sheet of paper laid over the page from the side. */
export function Dialog({ open, onOpenChange, title, says, children }: Props) {
  const from = useRef<Element>(null)
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-30 bg-[#201c17]/40" />
        <Radix.Content
          // Back to where one came from: our dialogs are opened by state, and know no button of their own.
          onOpenAutoFocus={() => {
            from.current = document.activeElement
          }}
          onCloseAutoFocus={(e) => {
            e.preventDefault()
            if (from.current instanceof HTMLElement && from.current.isConnected) from.current.focus()
          }}
          className="fixed inset-y-0 right-0 z-30 w-full max-w-3xl overflow-y-auto border-l border-rule bg-paper p-6 shadow-xl sm:p-8"
        >
          <div className="flex items-start justify-between gap-4">
            <Radix.Title className="text-xl">{title}</Radix.Title>
            <Radix.Close asChild>
              <Button look="quiet">Close</Button>
            </Radix.Close>
          </div>
          <Radix.Description className={says ? 'mt-1 text-soft' : 'sr-only'}>{says ?? title}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
