import { lazy, Suspense } from 'react'
import type { Props } from './SelectList'

// What opens over a page, and finds its place there, is 13 kB that no page needs at once.
const SelectList = lazy(async () => ({ default: (await import('./SelectList')).SelectList }))

/** Select is one choice among several, in a list that opens over the page. Until that is there it shows what is chosen. */
export function Select(props: Props) {
  const chosen = props.options.find((o) => o.value === props.value)?.label ?? ''
  return (
    <Suspense
      fallback={
        <span className="inline-flex max-w-full flex-wrap items-center gap-2">
          {props.showLabel && <span>{props.label}</span>}
          <span className="inline-flex min-h-11 max-w-full items-center gap-3 rounded-md border border-edge bg-sheet px-3">
            <span className="truncate">{chosen}</span>
            <span aria-hidden>▾</span>
          </span>
        </span>
      }
    >
      <SelectList {...props} />
    </Suspense>
  )
}
