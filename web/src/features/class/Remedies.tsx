import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type SetUp, settingsOf, useSaveSettings } from './queries'

/** A line of remedies: what is assigned for a cause, in order. */
type Line = Schemas['RemedyLine']

/** Kinds of a line at most; the server holds to the same. */
const mostKinds = 6

/** Remedies lets a director say what is assigned for which cause, and in which order. */
export function Remedies({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const [lines, setLines] = useState<Line[]>(setUp.remedies)
  const save = useSaveSettings(classId)
  const set = (key: string, kinds: string[]) => setLines(lines.map((l) => (l.key === key ? { ...l, kinds } : l)))
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate({
          ...settingsOf(setUp),
          // Only what differs is the class's own: ours may get better later.
          remedies: Object.fromEntries(lines.filter((l) => !isUsual(l)).map((l) => [l.key, l.kinds])),
        })
      }}
    >
      <p className="max-w-3xl text-soft">
        Suggestions name what a section’s takes came to most often, and propose the first step of its line. When a
        fortnight of it changed nothing, the next one comes; after the last, “hear them in person”.
      </p>
      <p className="sticky top-0 z-10 flex items-center gap-4 bg-paper py-3">
        <Button type="submit" look="main" disabled={save.isPending}>
          Save the next steps
        </Button>
        <span className="text-sm text-soft" aria-live="polite">
          {save.isSuccess && 'Saved.'}
        </span>
      </p>
      {save.error && <Problem error={save.error} />}
      <ul>
        {lines.map((l) => (
          <li key={l.key} className="border-b border-rule py-3">
            <RemedyLine line={l} kinds={setUp.kinds} onKinds={(kinds) => set(l.key, kinds)} />
          </li>
        ))}
      </ul>
    </form>
  )
}

const isUsual = (l: Line) => l.kinds.join() === l.usual.join()

/** onKinds hands the line on as it is now; an empty one goes to the director's own ear at once. */
type LineProps = { line: Line; kinds: SetUp['kinds']; onKinds: (kinds: string[]) => void }

/** RemedyLine is one line: its steps in order, each to be moved up or left out, and one to be added. */
function RemedyLine({ line, kinds, onKinds }: LineProps) {
  const name = (key: string) => kinds.find((k) => k.key === key)?.name ?? key
  const says = line.family ? `${line.words}, ${line.family}` : line.words
  return (
    <section aria-label={says}>
      <h2 className="text-lg first-letter:uppercase">
        {line.words} {line.family && <span className="font-sans text-sm text-soft">{line.family}</span>}
      </h2>
      <ol className="mt-1 flex flex-wrap items-center gap-2">
        {line.kinds.length === 0 && <li className="text-soft">hear them in person</li>}
        {line.kinds.map((kind, n) => (
          <li key={kind} className="flex items-center gap-1 rounded-md border border-edge bg-sheet pl-3">
            <span>
              {n + 1}. {name(kind)}
            </span>
            {n > 0 && (
              <Button
                look="quiet"
                aria-label={`${name(kind)} earlier`}
                onClick={() => onKinds(line.kinds.toSpliced(n - 1, 2, kind, line.kinds[n - 1] ?? ''))}
              >
                ←
              </Button>
            )}
            <Button
              look="quiet"
              aria-label={`Leave ${name(kind)} out`}
              onClick={() => onKinds(line.kinds.filter((k) => k !== kind))}
            >
              ×
            </Button>
          </li>
        ))}
        {line.kinds.length < mostKinds && (
          <li>
            <select
              aria-label={`Add a step for: ${says}`}
              className="min-h-9 rounded-md border border-edge bg-sheet px-2 text-sm"
              value=""
              onChange={(e) => onKinds([...line.kinds, e.target.value])}
            >
              <option value="">add …</option>
              {kinds
                .filter((k) => !line.kinds.includes(k.key))
                .map((k) => (
                  <option key={k.key} value={k.key}>
                    {k.name}
                  </option>
                ))}
            </select>
          </li>
        )}
        {!isUsual(line) && (
          <li>
            <Button look="quiet" onClick={() => onKinds(line.usual)}>
              Our order
            </Button>
          </li>
        )}
      </ol>
    </section>
  )
}
