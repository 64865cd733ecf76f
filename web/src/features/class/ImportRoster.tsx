import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type Row, type SetUp, usePreviewRoster, useSaveRoster } from './queries'
import { InstrumentChoice } from './RowFields'

/** onClose is called when the list is in, and when it is left alone. */
type Props = { classId: string; setUp: SetUp; onClose: () => void }

/** What a row does to the class, as the server compared it with the players there are. */
const actions = { add: 'new', change: 'changed', same: 'as it is' }

/** ImportRoster brings a list in: looked at row by row first, then all of it or nothing. */
export function ImportRoster({ classId, setUp, onClose }: Props) {
  const preview = usePreviewRoster(classId)
  const save = useSaveRoster(classId)
  const [rows, setRows] = useState<Row[]>([])
  // Rows are known by the line of the file they came from: names may be twice in a list.
  const [left, setLeft] = useState<number[]>([])
  // What is already so is not sent: a list that is brought in twice changes nothing the
  // second time.
  const taken = rows.filter((r) => !left.includes(r.line) && r.action !== 'same')
  // As long as one row is open nothing is taken in. Half a class is worse than none.
  const open = taken.filter((r) => r.problems.length > 0)
  return (
    <Dialog
      open
      onOpenChange={(is) => !is && onClose()}
      title="Bring in a list"
      says="A spreadsheet saved as CSV, in any order of columns, or a OneRoster 1.2 export (zip or users.csv). Nothing is kept until you say so."
    >
      <input
        type="file"
        aria-label="The list"
        accept=".csv,.txt,.tsv,.zip"
        className="mt-4 block max-w-full"
        onChange={(e) => {
          const file = e.target.files?.[0]
          // A list that is chosen again starts anew: rows that were mended belong to the file
          // before.
          if (file) preview.mutate(file, { onSuccess: (p) => setRows(p.rows) })
        }}
      />
      {preview.error && <Problem error={preview.error} />}
      {preview.data && (
        <div className="mt-5">
          <p className="text-sm text-soft">
            Understood as:{' '}
            {preview.data.columns
              .map((c) => `${c.name}${c.meaning ? ` → ${c.meaning.replace('_', ' ')}` : ' (not used)'}`)
              .join(', ')}
          </p>
          <p className="mt-2" aria-live="polite" data-testid="import-counts">
            {taken.filter((r) => r.action === 'add').length} new, {taken.filter((r) => r.action === 'change').length}{' '}
            changed, {rows.filter((r) => r.action === 'same').length} as they are
            {open.length > 0 && `, ${open.length} to mend`}.
          </p>
          <ul className="mt-3 divide-y divide-rule border-y border-rule">
            {rows.map((row) => (
              <PreviewRow
                key={row.line}
                setUp={setUp}
                row={row}
                left={left.includes(row.line)}
                onChange={(next) => setRows(rows.map((r) => (r.line === next.line ? mended(next) : r)))}
                onLeave={() =>
                  setLeft(left.includes(row.line) ? left.filter((l) => l !== row.line) : [...left, row.line])
                }
              />
            ))}
          </ul>
          {save.error && <Problem error={save.error} />}
          <p className="mt-4">
            <Button
              look="main"
              disabled={open.length > 0 || taken.length === 0 || save.isPending}
              onClick={() => save.mutate(taken, { onSuccess: onClose })}
            >
              Take in {taken.length} players
            </Button>
          </p>
        </div>
      )}
    </Dialog>
  )
}

/** mended drops the problems of fields that have been filled in; the server looks at every row again. */
const mended = (row: Row): Row => ({
  ...row,
  problems: row.problems.filter(
    (p) =>
      !(
        // Any answer closes the question here; whether it is a right one the server says when all
        // is sent.
        (p.field === 'instrument' && row.instrument !== '') ||
        (p.field === 'first' && row.first !== '') ||
        (p.field === 'stage' && row.stage <= 4)
      ),
  ),
})

/** left rows stay in view and are not taken in: a list is rarely all right at once. */
type RowProps = { setUp: SetUp; row: Row; left: boolean; onChange: (row: Row) => void; onLeave: () => void }

/**
 * PreviewRow is a line of the list as it was understood. What has to be mended is asked
 * for in place, so that nobody goes back to the spreadsheet for one cell.
 */
function PreviewRow({ setUp, row, left, onChange, onLeave }: RowProps) {
  const problem = (field: string) => row.problems.find((p) => p.field === field)?.remedy
  const wrong = row.problems.length > 0 && !left
  return (
    <li className={`py-2 ${left ? 'opacity-50' : ''}`}>
      <div className="flex items-baseline justify-between gap-3">
        <span>
          <span className="text-xs text-soft">line {row.line} </span>
          {row.first} {row.last}
          <span className="text-sm text-soft">
            {' '}
            · {setUp.instruments.find((i) => i.key === row.instrument)?.name ?? 'no instrument'} · {actions[row.action]}
          </span>
        </span>
        <Button look="quiet" aria-pressed={left} onClick={onLeave}>
          {left ? 'Take it in after all' : 'Leave it out'}
        </Button>
      </div>
      {wrong && (
        <div className="mt-1 grid gap-3 sm:grid-cols-2">
          {problem('first') && (
            <Field
              label="First name"
              value={row.first}
              problem={problem('first')}
              onChange={(e) => onChange({ ...row, first: e.target.value })}
            />
          )}
          {problem('instrument') && (
            <InstrumentChoice setUp={setUp} row={row} problem={problem('instrument')} onChange={onChange} />
          )}
          {problem('stage') && (
            <p className="text-sm text-not-yet">
              {problem('stage')} <Button onClick={() => onChange({ ...row, stage: 0 })}>By the weeks</Button>
            </p>
          )}
          {/* Two rows of one player cannot be mended by a field: one of them has to go. */}
          {problem('row') && <p className="text-sm text-not-yet">{problem('row')}. Leave one of them out.</p>}
        </div>
      )}
    </li>
  )
}
