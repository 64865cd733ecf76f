import { useEffect, useRef, useState } from 'react'
import { Button } from '../../ui/Button'
import { clock } from '../../ui/clock'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import type { Draft } from './draft'
import { type At, type Item, type Plan, useFit } from './queries'

/** The day is fitted as it stands in the draft, saved or not. */
type Props = { classId: string; plan: Plan; at: At; ofDay: Item[]; draft: Draft; onClose: () => void }

/** FitDay brings a day inside its minutes, and says what was cut and why. */
export function FitDay({ classId, plan, at, ofDay, draft, onClose }: Props) {
  const fit = useFit(classId)
  // At home nought stands for the stage's usual; 15 minutes is the usual of most (common
  // practice).
  const usual = at === 'class' ? plan.class_minutes : plan.home_minutes || 15
  const [into, setInto] = useState(usual)
  // The minutes are known: the day is fitted into them at once, and into others where somebody asks.
  const { mutate } = fit
  const asked = useRef(false)
  useEffect(() => {
    if (!asked.current) mutate({ items: ofDay, at, minutes: usual, monday: plan.monday })
    asked.current = true
  }, [mutate, ofDay, at, usual, plan.monday])
  const name = (key: string) => draft.items.find((i) => i.key === key)?.kind.replaceAll('-', ' ') ?? ''
  /**
   * accept puts the fitted items in the place of the day's. An item that stands on other
   * days too is cut, and left out, on all of them.
   */
  const accept = () => {
    if (!fit.data) return
    const fitted = new Map(fit.data.items.map((i) => [i.key, i]))
    const day = ofDay.map((i) => i.key)
    draft.change(draft.items.flatMap((i) => (day.includes(i.key) ? (fitted.get(i.key) ?? []) : [i])))
    onClose()
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Fit the day"
      says="Repeats are cut first, steps last. What is pinned stays."
    >
      <form
        className="mt-4 flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          // The day goes as it stands here: fitting first and saving after, or not at all.
          fit.mutate({ items: ofDay, at, minutes: into, monday: plan.monday })
        }}
      >
        <Field
          label="Minutes"
          type="number"
          min={1}
          max={60}
          step={0.5}
          value={Number.isNaN(into) ? '' : into}
          onChange={(e) => setInto(e.target.valueAsNumber)}
        />
        <Button type="submit" look="main" disabled={fit.isPending || !(into >= 1)}>
          Fit into these
        </Button>
      </form>
      {fit.error && <Problem error={fit.error} />}
      {fit.data && (
        <div className="mt-5" data-testid="fitted">
          <p className="font-serif text-lg">
            {fit.data.items.length} {fit.data.items.length === 1 ? 'step' : 'steps'} in {clock(fit.data.total_s)}
          </p>
          {fit.data.beyond.map((b) => (
            <p key={b} className="mt-1 text-not-yet">
              Even what is pinned is too much: {b}.
            </p>
          ))}
          {fit.data.cuts.length === 0 && <p className="mt-2">Everything fits as it is.</p>}
          <ul className="mt-3 divide-y divide-rule border-y border-rule">
            {fit.data.cuts.map((c) => (
              <li key={c.key} className="py-2">
                <span className="font-serif first-letter:uppercase">{name(c.key)}</span>: {c.says}
                <span className="block text-sm text-soft">{c.why}</span>
                {/* The remedy stands where it is wanted: whoever is shown a cut they dislike learns of
                    pins. */}
                {!c.dropped && <span className="block text-xs text-soft">Pin the step to keep all of it.</span>}
              </li>
            ))}
          </ul>
          <p className="mt-4 flex gap-3">
            <Button look="main" onClick={accept}>
              Take this day
            </Button>
            <Button look="quiet" onClick={onClose}>
              Leave it as it was
            </Button>
          </p>
        </div>
      )}
    </Dialog>
  )
}
