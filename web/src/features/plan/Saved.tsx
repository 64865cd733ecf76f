import { Button } from '../../ui/Button'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'
import type { Draft } from './draft'
import type { Plan } from './queries'

/**
 * How the draft stands with the server. It is never silent: a plan that was not saved
 * looks like one that was.
 */
const words = {
  saved: 'Everything is saved.',
  waiting: 'Saving in a moment …',
  saving: 'Saving …',
  offline: 'Not saved yet: kept on this device, and tried again.',
  conflict: 'Not saved: two of you changed the same steps.',
}

/** Saved says how far saving has come, and who else changed the week. */
export function Saved({ draft, plan }: { draft: Draft; plan: Plan }) {
  const last = plan.history[0]
  return (
    <div className="mt-2 text-sm text-soft">
      <p aria-live="polite">
        <span data-saving={draft.saving}>{words[draft.saving]}</span>{' '}
        {draft.merged && (
          <strong className="text-ink">Somebody else’s changes came in between; both are in the plan. </strong>
        )}
        {last && `Last: ${last.by}, ${moment(last.at)}: ${last.changes}`}
      </p>
      {draft.problem !== undefined && draft.saving !== 'saved' && <Problem error={draft.problem} />}
      {draft.saving === 'conflict' && (
        <p className="mt-2 flex gap-3">
          <Button onClick={draft.takeTheirs}>Take theirs</Button>
          <Button onClick={draft.keepMine}>Put mine in its place</Button>
        </p>
      )}
      {plan.history.length > 1 && (
        <details>
          <summary className="cursor-pointer">Who changed what</summary>
          <ol className="mt-1 max-h-48 overflow-y-auto">
            {plan.history.map((h) => (
              <li key={h.revision}>
                {moment(h.at)} · {h.by} {h.changes}
              </li>
            ))}
          </ol>
        </details>
      )}
    </div>
  )
}
