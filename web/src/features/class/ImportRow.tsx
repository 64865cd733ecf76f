import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import type { Row, SetUp } from './queries'
import { InstrumentChoice } from './RowFields'

/** What a row does to the class, as the server compared it with the players there are. */
const actions = { add: 'new', change: 'changed', same: 'as it is', leave: 'not on the list any more: leaves' }

/**
 * left rows stay in view and are not taken in: a list is rarely all right at once. alike is how
 * many other open rows have the same word for their instrument.
 */
type Props = {
  setUp: SetUp
  row: Row
  alike: number
  left: boolean
  onChange: (row: Row, all: boolean) => void
  onLeave: () => void
}

/**
 * ImportRow is a line of the list as it was understood. What has to be mended is asked for in
 * place, so that nobody goes back to the spreadsheet for one cell.
 */
export function ImportRow({ setUp, row, alike, left, onChange, onLeave }: Props) {
  const problem = (field: string) => row.problems.find((p) => p.field === field)?.remedy
  const wrong = row.problems.length > 0 && !left
  const twice = problem('row')
  return (
    <li className={`py-2 ${left ? 'opacity-50' : ''}`}>
      <div className="flex items-baseline justify-between gap-3">
        <span>
          {row.line > 0 && <span className="text-xs text-soft">line {row.line} </span>}
          {row.first} {row.last}
          <span className="text-sm text-soft">
            {' '}
            · {setUp.instruments.find((i) => i.key === row.instrument)?.name ?? 'no instrument'} · {actions[row.action]}
          </span>
        </span>
        <Button look="quiet" aria-pressed={left} onClick={onLeave}>
          {row.action === 'leave'
            ? left
              ? 'Leaves after all'
              : 'Stays'
            : left
              ? 'Take it in after all'
              : 'Leave it out'}
        </Button>
      </div>
      {wrong && (
        <div className="mt-1 grid gap-3 sm:grid-cols-2">
          {(problem('first') || twice) && (
            <NameFields row={row} problem={problem('first') ?? twice} onChange={onChange} />
          )}
          {problem('instrument') && (
            <div>
              <InstrumentChoice
                setUp={setUp}
                row={row}
                problem={problem('instrument')}
                onChange={(next) => onChange(next, true)}
              />
              {alike > 0 && (
                <p className="mt-1 text-sm text-soft">
                  {alike === 1 ? 'One more has' : `${alike} more have`} this word: they become the same.
                </p>
              )}
            </div>
          )}
          {problem('stage') && (
            <p className="text-sm text-not-yet">
              {problem('stage')} <Button onClick={() => onChange({ ...row, stage: 0 }, false)}>By the weeks</Button>
            </p>
          )}
        </div>
      )}
    </li>
  )
}

/** NameFields asks for a name, or tells two of one name apart; it is taken when it is complete. */
function NameFields({ row, problem, onChange }: Pick<Props, 'row' | 'onChange'> & { problem: string | undefined }) {
  const [first, setFirst] = useState(row.first)
  const [last, setLast] = useState(row.last)
  const keep = () => onChange({ ...row, first: first.trim(), last: last.trim() }, false)
  return (
    <>
      <Field
        label="First name"
        value={first}
        problem={problem}
        onChange={(e) => setFirst(e.target.value)}
        onBlur={keep}
      />
      <Field label="Last name" value={last} onChange={(e) => setLast(e.target.value)} onBlur={keep} />
    </>
  )
}
