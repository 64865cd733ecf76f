import type { Schemas } from '../../api/client'
import { longDay } from '../../ui/days'
import { resultWords } from '../../ui/ResultMark'

/** TestLine says that a step is a test, until when, and how many takes are left. */
export function TestLine({ test }: { test: Schemas['PracticeTest'] }) {
  const left = test.takes - test.used
  return (
    <section aria-label="A test" className="mt-3 border-l-4 border-warm pl-3">
      <p className="font-serif text-lg">A test, up to {longDay(test.due)}</p>
      <p>
        {left > 0
          ? `You have ${left} ${left === 1 ? 'take' : 'takes'} left. The ${test.counts} one counts.`
          : 'All your takes are in. What you play now is practice.'}
        {test.result && ` So far: ${resultWords[test.result]}.`}
      </p>
    </section>
  )
}
