import { useMutation } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { newId } from '../../api/ids'
import { useOutbox } from '../../device/useOutbox'
import { stepBack } from '../../ear/ask'
import { Button } from '../../ui/Button'
import type { Practice } from './queries'

/** The practice says who the player is; the ladder, where they stand. */
type Props = { practice: Practice; ladder: Schemas['Ladder'] }

/** LadderRungs is the ladder in view: the rung one stands on, and what it still asks for. */
export function LadderRungs({ practice, ladder }: Props) {
  const back = useStepBack(practice, ladder)
  const near = ladder.rungs
    .map((text, n) => ({ text, n: n + 1 }))
    .filter(({ n }) => Math.abs(n - ladder.rung) <= 2)
    .reverse() // the top is up
  return (
    <section aria-label="The ladder" className="mt-4 border-y border-rule py-3">
      <p className="flex items-baseline justify-between gap-3">
        <span className="font-serif text-lg">{ladder.name}</span>
        <span className="text-sm text-soft">
          rung {ladder.rung} of {ladder.rungs.length}
        </span>
      </p>
      <ol className="mt-2">
        {near.map(({ text, n }) => (
          <li
            key={n}
            aria-current={n === ladder.rung ? 'step' : undefined}
            className={`flex items-center gap-3 border-l-4 py-1 pl-3 ${n === ladder.rung ? 'border-warm font-serif text-lg' : 'border-rule text-soft'}`}
          >
            <span>{text}</span>
            {ladder.passed[n - 1] && <span className="text-xs">passed</span>}
          </li>
        ))}
      </ol>
      <p className="mt-2 flex flex-wrap items-center gap-x-3" aria-live="polite">
        <InARow ladder={ladder} />
        {ladder.reached && 'You reached the goal. '}
        {ladder.capped
          ? 'That is enough of this ladder for today. More is good practice. It counts again the next day.'
          : `${ladder.needs} clean in a row ${ladder.needs === 1 ? 'passes' : 'pass'} this rung.`}{' '}
        <span className="text-sm text-soft">
          {ladder.tries_today} of {ladder.most_tries} tries today
        </span>
      </p>
      {ladder.rung > 1 && (
        <Button look="quiet" onClick={() => back.mutate()} disabled={back.isPending}>
          Step back to the last one that worked
        </Button>
      )}
    </section>
  )
}

/** InARow is the clean takes in a row so far, one mark each, and those still to come. */
export function InARow({ ladder }: { ladder: Schemas['Ladder'] }) {
  const all = ladder.clean + ladder.needs
  if (ladder.capped || all < 2) return null
  return (
    <span role="img" aria-label={`${ladder.clean} of ${all} clean in a row`} className="inline-flex gap-1">
      {Array.from({ length: all }, (_, n) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: the marks are their places
          key={n}
          className={`drawn size-4 rounded-full border-2 ${n < ladder.clean ? 'border-clean bg-clean' : 'border-edge'}`}
        />
      ))}
    </span>
  )
}

/** useStepBack leads back to the last clean rung, here at once and at the server when it can be told. */
function useStepBack(practice: Practice, ladder: Schemas['Ladder']) {
  const outbox = useOutbox()
  return useMutation({
    mutationFn: async () => {
      const next = await stepBack(practice.setting, ladder, practice.day)
      const act = newId()
      await outbox.keepMessage(act, {
        method: 'PUT',
        path: `/practice/ladders/${ladder.key}/back/${act}`,
        body: {},
        ladder: next,
      })
    },
  })
}
