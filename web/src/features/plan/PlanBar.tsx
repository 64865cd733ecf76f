import { ToggleGroup } from 'radix-ui'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button, buttonClass } from '../../ui/Button'
import { shifted, shortDay } from '../../ui/days'
import { CopyFrom } from './CopyFrom'
import type { Draft } from './draft'
import { FitDay } from './FitDay'
import { NotesKnown } from './NotesKnown'
import type { At, Item, Plan } from './queries'
import { SuggestWeek } from './SuggestWeek'
import { TakeOut } from './TakeOut'
import { dayKeys, dayNames } from './weeks'

/** ofDay are the items of the day and place in view; onAdd adds to that day, onNew the week's new note. */
type Props = {
  classId: string
  plan: Plan
  draft: Draft
  day: number
  at: At
  ofDay: Item[]
  onDay: (day: number) => void
  onAt: (at: At) => void
  onWeek: (monday: string) => void
  onAdd: (...items: Item[]) => void
  onNew: () => void
}

/** PlanBar is the week, the day, and what can be done with them. */
export function PlanBar({ classId, plan, draft, day, at, ofDay, onDay, onAt, onWeek, onAdd, onNew }: Props) {
  // One at a time: both propose changes to the same day, and two proposals would contradict.
  const [open, setOpen] = useState<'fit' | 'suggest' | 'known'>()
  return (
    <div className="border-y border-ink py-2">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <nav aria-label="Week" className="flex items-center gap-1">
          <Button aria-label="The week before" onClick={() => onWeek(shifted(plan.monday, -7))}>
            ←
          </Button>
          <p className="min-w-44 text-center font-serif">{weekName(plan.monday)}</p>
          <Button aria-label="The week after" onClick={() => onWeek(shifted(plan.monday, 7))}>
            →
          </Button>
        </nav>
        <ToggleGroup.Root
          type="single"
          aria-label="Day"
          className="flex flex-wrap gap-1"
          value={String(day)}
          // A toggle that is pressed again says "": a day is always in view.
          onValueChange={(n) => n !== '' && onDay(Number(n))}
        >
          {dayNames.map((name, n) => {
            // The count tells an empty day from a full one without opening it.
            const count = draft.items.filter((i) => i.days.includes(dayKeys[n] ?? '')).length
            return (
              <ToggleGroup.Item
                key={name}
                value={String(n)}
                aria-label={`${name}, ${count} ${count === 1 ? 'step' : 'steps'}`}
                className="min-h-11 max-w-full rounded-md border border-transparent px-2.5 text-sm data-[state=on]:border-ink data-[state=on]:bg-sheet"
              >
                {name.slice(0, 3)} <span className="text-soft">{count || ''}</span>
              </ToggleGroup.Item>
            )
          })}
        </ToggleGroup.Root>
        <fieldset className="flex gap-1">
          <legend className="sr-only">Where</legend>
          {(['class', 'home'] as const).map((where) => (
            <label
              key={where}
              className="flex min-h-10 cursor-pointer items-center rounded-md border border-edge px-3 text-sm has-checked:border-ink has-checked:bg-ink has-checked:text-paper"
            >
              <input
                type="radio"
                name="where"
                className="sr-only"
                checked={at === where}
                onChange={() => onAt(where)}
              />
              {where === 'class' ? 'In class' : 'At home'}
            </label>
          ))}
        </fieldset>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button onClick={() => setOpen('fit')} disabled={ofDay.length === 0}>
          Fit to minutes
        </Button>
        <Button onClick={() => setOpen('suggest')}>Suggest from last week</Button>
        <CopyFrom classId={classId} plan={plan} draft={draft} onAdd={onAdd} />
        <Button onClick={() => setOpen('known')}>Notes known</Button>
        {/* Undo says by being dim that there is nothing to take back. */}
        <Button onClick={draft.undo} disabled={!draft.undo} aria-label="Undo">
          ↶ Undo
        </Button>
        <Button onClick={draft.redo} disabled={!draft.redo} aria-label="Redo">
          ↷ Redo
        </Button>
        <span className="grow" />
        <TakeOut classId={classId} plan={plan} day={day} at={at} />
        <Link to={`/class/${classId}/front/${plan.monday}/${day}`} className={buttonClass('main')}>
          Play it with the class
        </Link>
      </div>
      {open === 'fit' && (
        <FitDay classId={classId} plan={plan} at={at} ofDay={ofDay} draft={draft} onClose={() => setOpen(undefined)} />
      )}
      {open === 'known' && (
        <NotesKnown classId={classId} monday={plan.monday} onNew={onNew} onClose={() => setOpen(undefined)} />
      )}
      {open === 'suggest' && (
        <SuggestWeek classId={classId} monday={plan.monday} onAdd={onAdd} onClose={() => setOpen(undefined)} />
      )}
    </div>
  )
}

/** weekName says a week by its first and last day. */
function weekName(monday: string): string {
  return `${shortDay(monday)} – ${shortDay(shifted(monday, 6))}`
}
