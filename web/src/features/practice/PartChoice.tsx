import { targetsOf } from '../../api/score'
import { Button } from '../../ui/Button'
import type { ShownStep } from './overlay'
import type { Part } from './usePart'

/** How many notes and changes are offered; a long tune has more than anyone would look through. */
const most = 16

/** PartChoice offers one note, one change, or the fingers alone: what does not come yet is worked on by itself. */
export function PartChoice({ step, onChoose }: { step: ShownStep; onChoose: (part: Part) => void }) {
  const { notes, changes } = partsOf(step)
  if (notes.length === 0 || step.score.ears_first) return null
  const fingers = targetsOf(step.score).some((t) => t.fingering)
  return (
    <details className="mt-4 border-t border-rule pt-1">
      <summary className="min-h-11 cursor-pointer py-2 text-soft">Work on a part of it</summary>
      <p className="text-sm text-soft">It is just for you. Then play the whole step again.</p>
      <Choices title="One note" parts={notes} onChoose={onChoose} />
      <Choices title="One change" parts={changes} onChoose={onChoose} />
      {fingers && <Choices title="No sound" parts={[{ label: 'Fingers only', silent: true }]} onChoose={onChoose} />}
    </details>
  )
}

function Choices({ title, parts, onChoose }: { title: string; parts: Part[]; onChoose: (part: Part) => void }) {
  if (parts.length === 0) return null
  return (
    <fieldset className="mt-3 flex flex-wrap gap-2">
      <legend className="mb-1 text-sm">{title}</legend>
      {parts.map((p) => (
        <Button key={p.label} onClick={() => onChoose(p)}>
          {p.label}
        </Button>
      ))}
    </fieldset>
  )
}

/** partsOf lists a step's different notes, and its different changes from one note straight to the next. */
function partsOf(step: ShownStep): { notes: Part[]; changes: Part[] } {
  const targets = targetsOf(step.score).map((t, n) => ({ ...t, n, name: t.called ?? t.written_name ?? '' }))
  const playing = targets.filter((t) => t.phase === 'play' && !t.goal)
  const notes = playing.map((t) => ({ label: t.name, notes: [t.n] }))
  const changes = playing.flatMap((t) => {
    const next = playing.find((u) => u.n === t.n + 1)
    return next && next.name !== t.name ? [{ label: `${t.name} to ${next.name}`, notes: [t.n, next.n] }] : []
  })
  return { notes: different(notes), changes: different(changes) }
}

/** different keeps the first of each label. */
const different = (parts: Part[]) =>
  parts.filter((p, n) => parts.findIndex((q) => q.label === p.label) === n).slice(0, most)

/** PartBar says that a part is in hand, and leads back to the whole. */
export function PartBar({ part, onWhole }: { part: Part; onWhole: () => void }) {
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3 rounded-md bg-warm-wash px-3 py-2" role="status">
      <span className="grow">
        Just this part: <strong>{part.label}</strong>. Nothing is handed in.
      </span>
      <Button onClick={onWhole}>Back to the whole step</Button>
    </p>
  )
}
