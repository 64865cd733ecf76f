import { useEffect, useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { ResultMark } from '../../ui/ResultMark'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'
import { AllDone } from './StepPage'
import { Cautions } from './StepSheet'
import { TellDirector } from './TellDirector'
import { useBlow } from './useBlow'

/** blowers are simulated players: a real meter would be read here instead. */
type Props = { practice: Practice; step: ShownStep; onNext?: () => void }

/** MeterPanel is a step blown into an air meter. No meter need be there: simulated players blow into a simulated one. */
export function MeterPanel({ practice, step, onNext }: Props) {
  const { blowers } = practice
  const blow = useBlow(practice, step)
  const [finished, setFinished] = useState(false)
  if (finished) return <AllDone onAgain={() => setFinished(false)} />
  const blown = blow.data
  return (
    <section aria-label="Your step">
      <h1 className="mt-3">{step.name}</h1>
      {step.task && <p className="mt-1 font-serif text-lg leading-snug">{step.task.sentence}</p>}
      <p className="text-soft">{step.why}</p>
      <p className="mt-4">
        {blowers.length > 0
          ? 'No meter is connected to this program yet. Let a simulated player blow into a simulated one:'
          : 'No air meter is here. Do this step with your director.'}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {blowers.map((b) => (
          <Button
            key={b.key}
            disabled={blow.isPending}
            // The blower's key decides the simulated trace; what it is worth is judged like any other.
            onClick={() => blow.mutate(b.key)}
          >
            {b.label}
          </Button>
        ))}
      </div>
      {blow.error && <Problem error={blow.error} />}
      {blown && (
        <div className="mt-5" aria-live="polite">
          <p className="font-serif text-2xl" data-verdict={blown.verdict.result}>
            <ResultMark result={blown.verdict.result} withWord size={34} />
          </p>
          <p className="mt-1 text-lg">{blown.verdict.sentence}</p>
          <Ball trace={blown.trace} />
          <p className="mt-4 border-l-4 border-warm pl-3 text-lg">{blown.verdict.tip.text}</p>
          <details className="mt-3 text-sm text-soft">
            <summary className="min-h-11 cursor-pointer py-2">The numbers</summary>
            <ol>
              {blown.blows.map((b, n) => (
                <li key={b.onset_s}>
                  Blow {n + 1}: up in {Math.round(1000 * b.delay_s)} ms, dances by {Math.round(100 * b.unsteady)} %
                </li>
              ))}
            </ol>
          </details>
        </div>
      )}
      <Cautions texts={step.score.cautions} />
      <p className="mt-6">
        <Button look={blown ? 'main' : 'plain'} size="large" onClick={onNext ?? (() => setFinished(true))}>
          {onNext ? 'Next step' : 'Done'}
        </Button>
      </p>
      <TellDirector stepId={step.id} />
    </section>
  )
}

const speed = 4 // times as fast as it was blown

/** Ball shows the trace as a line, and the ball where it stands now. */
function Ball({ trace }: { trace: Schemas['Trace'] }) {
  const heights = trace.height ?? []
  const [at, setAt] = useState(0)
  useEffect(() => {
    // The line says all the ball does; whoever wants no motion sees the end of it at once.
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) return setAt(heights.length - 1)
    const began = performance.now()
    let frame = requestAnimationFrame(function move(now) {
      // By the clock and not by frames: a slow machine skips, and stays in time.
      const n = Math.floor((speed * (now - began)) / 1000 / trace.step_s)
      setAt(Math.min(heights.length - 1, n))
      if (n < heights.length - 1) frame = requestAnimationFrame(move)
    })
    return () => cancelAnimationFrame(frame)
  }, [trace.step_s, heights.length])
  // Drawn in 400 by 104 units that scale with the page; the tube with the ball stands at the
  // right.
  const line = heights.map((h, n) => `${n === 0 ? 'M' : 'L'}${(400 * n) / heights.length} ${100 - 95 * h}`).join('')
  return (
    <svg
      viewBox="0 0 440 104"
      role="img"
      className="mt-4 w-full border-y border-rule bg-sheet"
      aria-label="The ball's height through the step"
    >
      <path d={line} fill="none" stroke="currentColor" strokeWidth="1.5" />
      <line
        x1={(400 * at) / Math.max(1, heights.length)}
        x2={(400 * at) / Math.max(1, heights.length)}
        y1="0"
        y2="104"
        stroke="var(--warm)"
      />
      <rect x="415" y="2" width="16" height="100" rx="8" fill="none" stroke="var(--edge)" />
      <circle cx="423" cy={95 - 88 * (heights[at] ?? 0)} r="7" fill="var(--warm)" />
    </svg>
  )
}
