import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Outbox } from '../../device/outbox'
import { askToStay } from '../../device/space'
import { OutboxContext } from '../../device/useOutbox'
import { warm } from '../../ear/listener'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { meQuery } from '../signin'
import { Care } from './Care'
import { FromDirector } from './FromDirector'
import { Keeping } from './Keeping'
import { KeySheet } from './KeySheet'
import { MeterPanel } from './MeterPanel'
import type { ShownStep } from './overlay'
import { StepList } from './StepList'
import { StepPage } from './StepPage'
import { TickList } from './TickList'
import { TodaysTakes } from './TodaysTakes'
import { useToday } from './useToday'

/** Practice is the player's page, with what this device keeps for them behind it. */
export function Practice() {
  const { data: me, error } = useQuery(meQuery)
  const owner = me?.role === 'player' ? (me.id ?? '') : ''
  // One outbox to a player: on a shared machine nobody sends what a classmate recorded.
  const outbox = useMemo(() => new Outbox(owner), [owner])
  useEffect(() => {
    if (!owner) return
    // Asked before the first take is kept, not when the browser is about to throw it out.
    askToStay()
    void outbox.open().catch(console.warn) // without a place to keep takes they are sent at once
    window.addEventListener('online', outbox.send)
    return () => {
      window.removeEventListener('online', outbox.send)
      outbox.close()
    }
  }, [outbox, owner])
  if (error) return <Problem error={error} />
  if (!me) return <Waiting what="Opening your music" />
  return (
    <OutboxContext value={outbox}>
      <Steps />
    </OutboxContext>
  )
}

const quiet = 1_500 // milliseconds after the page is there, before the ear is loaded

/** Steps is one thing to do, and what came of it. */
function Steps() {
  const { practice, steps, error } = useToday()
  const [search, setSearch] = useSearchParams()
  const [first, setFirst] = useState<string>()
  useEffect(() => {
    const timer = setTimeout(warm, quiet)
    return () => clearTimeout(timer)
  }, [])
  // Chosen once: a step that has just become clean must not be taken from under the player.
  useEffect(() => setFirst((f) => f ?? firstOpen(steps)?.id), [steps])
  if (error) return <Problem error={error} />
  if (!practice) return <Waiting what="Opening your music" />
  // A step that was taken off the plan since may still stand in the address.
  const wanted = search.get('step') ?? first
  const step = steps.find((s) => s.id === wanted) ?? firstOpen(steps)
  const next = step && steps[steps.indexOf(step) + 1]
  const go = (to: ShownStep) => setSearch({ step: to.id })
  // Left out and not undefined: the last step says Done in the place of Next.
  const onward = next ? { onNext: () => go(next) } : {}
  return (
    <div className="mx-auto max-w-2xl pb-20 sm:pb-0">
      <p className="flex flex-wrap items-baseline justify-between gap-x-4 text-soft">
        <span>{practice.instrument}</span>
        <span className="flex items-baseline gap-4">
          {practice.fingered && <Link to="/fingerings">All fingerings</Link>}
          <KeySheet />
        </span>
      </p>
      {steps.length > 1 && step && <StepList steps={steps} now={step} onGo={go} />}
      {!step && <p className="mt-6 text-lg">Nothing is set for today. Play something you like.</p>}
      {/* The key holds the version: a step the director changed begins afresh and keeps no half of the
          old one. */}
      {step?.score.ticked && <TickList key={`${step.id}/${step.version}`} step={step} {...onward} />}
      {step?.score.metered && (
        <MeterPanel key={`${step.id}/${step.version}`} step={step} blowers={practice.blowers} {...onward} />
      )}
      {step && !step.score.ticked && !step.score.metered && (
        <StepPage key={`${step.id}/${step.version}`} practice={practice} step={step} all={steps} {...onward} />
      )}
      <Keeping />
      {step && <TodaysTakes takes={step.takes} />}
      {/* What an older version of the page kept has no care in it. */}
      <Care care={practice.care ?? []} />
      <FromDirector comments={practice.comments} />
    </div>
  )
}

/** firstOpen is the first step that is not clean yet, or the first. */
function firstOpen(steps: ShownStep[]): ShownStep | undefined {
  // All clean is a day well done; the first step again is as good as any.
  return steps.find((s) => s.result !== 'clean') ?? steps[0]
}
