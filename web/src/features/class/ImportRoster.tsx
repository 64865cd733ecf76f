import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { ImportColumns } from './ImportColumns'
import { ImportRow } from './ImportRow'
import { type HowToRead, type Row, type SetUp, usePreviewRoster, useSaveRoster } from './queries'

/** onClose is called when the list is in, and when it is left alone. */
type Props = { classId: string; setUp: SetUp; onClose: () => void }

/** ImportRoster brings a list in: looked at row by row first, then all of it or nothing. */
export function ImportRoster({ classId, setUp, onClose }: Props) {
  const preview = usePreviewRoster(classId)
  const save = useSaveRoster(classId)
  const [how, setHow] = useState<HowToRead>()
  const [rows, setRows] = useState<Row[]>([])
  // Rows are known by where they stand in the preview: names may be twice in a list.
  const [left, setLeft] = useState<number[]>([])
  const list = preview.data
  // A list that is read otherwise starts anew: rows that were mended belong to how it was read
  // before.
  function read(next: HowToRead) {
    setHow(next)
    preview.mutate(next, {
      onSuccess: (p) => {
        setRows(p.rows)
        setLeft([])
      },
    })
  }
  // What is already so is not sent: a list that is brought in twice changes nothing the second
  // time.
  const taken = rows.filter((r, n) => !left.includes(n) && r.action !== 'same')
  // As long as one row is open nothing is taken in. Half a class is worse than none.
  const open = taken.filter((r) => r.problems.length > 0)
  const count = (action: Row['action']) => taken.filter((r) => r.action === action).length
  return (
    <Dialog
      open
      onOpenChange={(is) => !is && onClose()}
      title="Import roster"
      says="A spreadsheet saved as CSV, in any order of columns, or a OneRoster export (zip or users.csv). Nothing is kept until you say so."
    >
      <input
        type="file"
        aria-label="The list"
        accept=".csv,.txt,.tsv,.zip"
        className="mt-4 block max-w-full"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) read({ file })
        }}
      />
      {preview.error && <Problem error={preview.error} />}
      {list && how && (
        <div className="mt-5">
          {list.classes.length > 0 && (
            <div className="mb-4 max-w-md">
              <Choice
                label="The file holds several classes. Which is this one?"
                value={how.classId ?? ''}
                options={[
                  { key: '', label: 'choose …' },
                  ...list.classes.map((c) => ({ key: c.id, label: `${c.title}, ${c.players} players` })),
                ]}
                onChange={(classId) => read({ ...how, classId })}
              />
            </div>
          )}
          {list.format === 'csv' && <ImportColumns list={list} how={how} onRead={read} />}
          {rows.length > 0 && (
            <>
              <p className="mt-2" aria-live="polite" data-testid="import-counts">
                {count('add')} new, {count('change')} changed, {rows.filter((r) => r.action === 'same').length} as they
                are
                {count('leave') > 0 && `, ${count('leave')} leave`}
                {open.length > 0 && `, ${open.length} to mend`}.
              </p>
              <ul className="mt-3 divide-y divide-rule border-y border-rule">
                {rows.map((row, n) => (
                  <ImportRow
                    // biome-ignore lint/suspicious/noArrayIndexKey: rows are never reordered
                    key={n}
                    setUp={setUp}
                    row={row}
                    alike={rows.filter((r) => isOpen(r) && r !== row && row.said && r.said === row.said).length}
                    left={left.includes(n)}
                    onChange={(next, all) => setRows(changed(rows, n, next, all))}
                    onLeave={() => setLeft(left.includes(n) ? left.filter((l) => l !== n) : [...left, n])}
                  />
                ))}
              </ul>
            </>
          )}
          {save.error && <Problem error={save.error} />}
          <p className="mt-4">
            <Button
              look="main"
              disabled={open.length > 0 || taken.length === 0 || save.isPending}
              onClick={() =>
                save.mutate(
                  // Only what was said by hand is learnt for the school's next list.
                  { rows: taken, ...(how.meanings ? { columns: list.columns } : {}) },
                  { onSuccess: onClose },
                )
              }
            >
              {count('leave') > 0 ? `Make these ${taken.length} changes` : `Import ${taken.length} players`}
            </Button>
          </p>
        </div>
      )}
    </Dialog>
  )
}

/** isOpen says that a row has no instrument yet. */
const isOpen = (r: Row) => r.problems.some((p) => p.field === 'instrument')

/**
 * changed puts a row in the place of another; with all, every open row of the same word becomes
 * the same instrument.
 */
function changed(rows: Row[], at: number, next: Row, all: boolean): Row[] {
  const out = rows.map((r, n) => {
    if (n === at) return next
    if (all && next.said && r.said === next.said && isOpen(r)) {
      return { ...r, instrument: next.instrument, variant: next.variant }
    }
    return r
  })
  return out.map((r) => mended(r, out))
}

/** mended drops the problems of what has been filled in; the server looks at every row again. */
const mended = (row: Row, all: Row[]): Row => ({
  ...row,
  problems: row.problems.filter(
    (p) =>
      !(
        // Any answer closes the question here; whether it is a right one the server says when all
        // is sent.
        (p.field === 'instrument' && row.instrument !== '') ||
        (p.field === 'first' && row.first !== '') ||
        (p.field === 'stage' && row.stage <= 4) ||
        (p.field === 'row' && all.filter((r) => nameOf(r) === nameOf(row)).length === 1)
      ),
  ),
})

const nameOf = (r: Row) => `${r.first} ${r.last}`.toLowerCase()
