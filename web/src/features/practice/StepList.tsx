import { useEffect, useRef } from 'react'
import { type Result, ResultMark, resultWords } from '../../ui/ResultMark'
import type { ShownStep } from './overlay'

/** The list is the day; now is the step in hand. */
type Props = { steps: ShownStep[]; now: ShownStep; onGo: (step: ShownStep) => void }

/** StepList is the day's steps in order, each by its name and how it stands. On a phone it is one row that is pushed along. */
export function StepList({ steps, now, onGo }: Props) {
  const clean = steps.filter((s) => s.result === 'clean').length
  const row = useRef<HTMLOListElement>(null)
  // The step in hand is in sight, whichever it is.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is in hand
  useEffect(() => {
    const tile = row.current?.querySelector<HTMLElement>('[aria-current]')
    if (row.current && tile) row.current.scrollLeft = tile.offsetLeft - row.current.offsetLeft - 24
  }, [now.id])
  return (
    <nav aria-label="Today's steps" className="mt-2">
      <ol ref={row} className="relative flex gap-1.5 overflow-x-auto pb-1 sm:flex-wrap">
        {steps.map((s, n) => {
          const result: Result = s.result ?? 'missing'
          return (
            <li key={s.id} className="flex shrink-0">
              <button
                type="button"
                aria-current={s.id === now.id ? 'step' : undefined}
                data-step={n + 1}
                className="flex min-h-16 w-28 flex-col justify-start rounded-md border border-edge bg-sheet px-2.5 py-1 text-left aria-[current]:border-2 aria-[current]:border-warm"
                onClick={() => onGo(s)}
              >
                <span className="flex w-full items-center justify-between">
                  <span className="font-serif">
                    {n + 1}
                    {s.test && <span className="pl-2 font-sans text-xs text-warm">test</span>}
                  </span>
                  <ResultMark result={result} size={15} silent />
                </span>
                <span className="line-clamp-2 text-xs leading-tight text-soft">{s.name}</span>
                <span className="sr-only">, {resultWords[result]}</span>
              </button>
            </li>
          )
        })}
      </ol>
      <p className="mt-1 text-sm text-soft">
        {clean} of {steps.length} clean today
      </p>
    </nav>
  )
}
