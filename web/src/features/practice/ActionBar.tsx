import type { ReactNode } from 'react'

/** ActionBar is what is pressed next, always in reach: on a phone the page is longer than the screen. */
export function ActionBar({ children }: { children: ReactNode }) {
  return (
    <div className="fixed inset-x-0 bottom-0 z-[5] border-t border-rule bg-paper px-4 pt-1 pb-3 sm:static sm:border-0 sm:p-0">
      {children}
    </div>
  )
}
