import { Link } from 'react-router'
import { Choice } from '../../ui/Choice'
import { shifted } from '../../ui/days'
import { Field } from '../../ui/Field'
import type { Item } from './queries'

/** monday is of the week the step is in; today is the school's date. */
type Props = { classId: string; monday: string; today: string; item: Item; onChange: (item: Item) => void }

/**
 * A test begins with these: due on the week's Friday, or in three days where that is past, three
 * takes, the best counts (common practice, no published source).
 */
export const usualTest = (monday: string, today: string): NonNullable<Item['test']> => ({
  due: shifted(monday, 4) >= today ? shifted(monday, 4) : shifted(today, 3),
  takes: 3,
  counts: 'best',
})

/** TestTerms makes a step a test: due on a day, so many takes of it counting. */
export function TestTerms({ classId, monday, today, item, onChange }: Props) {
  const { test } = item
  const set = (part: Partial<NonNullable<Item['test']>>) => test && onChange({ ...item, test: { ...test, ...part } })
  return (
    <fieldset className="mt-3 min-w-0 border-t border-rule pt-3">
      <legend className="sr-only">A test</legend>
      <label className="flex min-h-10 items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-5"
          checked={test !== undefined}
          onChange={(e) =>
            onChange({
              ...item,
              test: e.target.checked ? usualTest(monday, today) : undefined,
              at: e.target.checked ? 'home' : item.at,
            })
          }
        />
        A test, handed in by a day
      </label>
      {test && (
        <>
          <div className="grid grid-cols-3 gap-3">
            <Field
              label="Due"
              type="date"
              min={monday}
              max={shifted(monday, 60)}
              value={test.due}
              onChange={(e) => e.target.value && set({ due: e.target.value })}
            />
            <Field
              label="Takes that count"
              type="number"
              min={1}
              max={10}
              value={test.takes}
              onChange={(e) => e.target.valueAsNumber >= 1 && set({ takes: Math.min(10, e.target.valueAsNumber) })}
            />
            <Choice
              label="Result"
              value={test.counts}
              options={[
                { key: 'best', label: 'the best take' },
                { key: 'last', label: 'the last take' },
              ]}
              onChange={(counts) => set({ counts: counts as 'best' | 'last' })}
            />
          </div>
          <p className="mt-2 text-sm text-soft">
            Open every day until then. Hard notes are held against nobody. What the program can’t tell uses no take up.{' '}
            <Link to={`/class/${classId}/test/${item.key}`}>Results</Link>
          </p>
        </>
      )}
    </fieldset>
  )
}
