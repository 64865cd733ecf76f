import { type ReactNode, useEffect, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { warm } from '../../ear/listener'
import { KeySheet } from './KeySheet'
import { MeterPanel } from './MeterPanel'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'
import { StepList } from './StepList'
import { StepPage } from './StepPage'
import { TickList } from './TickList'

const quiet = 1_500 // milliseconds after the page is there, before the ear is loaded

/** children is what stands below the step in hand. */
type Props = { practice: Practice; steps: ShownStep[]; children: (step: ShownStep | undefined) => ReactNode }

/** DaySteps is one thing to do of a day, and what came of it. */
export function DaySteps({ practice, steps, children }: Props) {
  const [search, setSearch] = useSearchParams()
  const [first, setFirst] = useState<string>()
  useEffect(() => {
    const timer = setTimeout(warm, quiet)
    return () => clearTimeout(timer)
  }, [])
  // Chosen once: a step that has just become clean must not be taken from under the player.
  useEffect(() => setFirst((f) => f ?? firstOpen(steps)?.id), [steps])
  // A step that was taken off the plan since may still stand in the address.
  const wanted = search.get('step') ?? first
  const step = steps.find((s) => s.id === wanted) ?? firstOpen(steps)
  const next = step && steps[steps.indexOf(step) + 1]
  const go = (to: ShownStep) => setSearch({ step: to.id })
  // Left out and not undefined: the last step says Done in the place of Next.
  const onward = next ? { onNext: () => go(next) } : {}
  return (
    <div className="mx-auto max-w-2xl pb-32 sm:pb-0">
      <p className="flex flex-wrap items-baseline gap-x-4 text-sm text-soft [&_a]:inline-flex [&_a]:min-h-11 [&_a]:items-center [&_a]:underline">
        <span className="grow font-serif text-base text-ink">{practice.instrument}</span>
        {practice.player_id && <Link to="/my-progress">My progress</Link>}
        {practice.fingered && practice.player_id && <Link to="/fingerings">Fingerings</Link>}
        {practice.fingered && practice.player_id && <Link to="/which-note">Which note?</Link>}
        {practice.player_id && <Link to="/lessons">Lessons</Link>}
        <KeySheet />
      </p>
      {steps.length > 1 && step && <StepList steps={steps} now={step} onGo={go} />}
      {!step && <p className="mt-6 text-lg">Nothing is set for today. Play something you like.</p>}
      {/* The key holds the version: a step the director changed begins afresh and keeps no half of the
          old one. */}
      {step?.score.ticked && <TickList key={`${step.id}/${step.version}`} step={step} {...onward} />}
      {step?.score.metered && (
        <MeterPanel key={`${step.id}/${step.version}`} practice={practice} step={step} {...onward} />
      )}
      {step && !step.score.ticked && !step.score.metered && (
        <StepPage key={`${step.id}/${step.version}`} practice={practice} step={step} all={steps} {...onward} />
      )}
      {children(step)}
    </div>
  )
}

/** firstOpen is the first step that is not clean yet, or the first. */
function firstOpen(steps: ShownStep[]): ShownStep | undefined {
  // All clean is a day well done; the first step again is as good as any.
  return steps.find((s) => s.result !== 'clean') ?? steps[0]
}
