import { Choice } from '../../ui/Choice'
import type { HowToRead, Preview } from './queries'

/** What a column may mean, in words. */
const words: Record<string, string> = {
  '': 'as understood',
  name: 'first and last name',
  first: 'first name',
  last: 'last name',
  instrument: 'instrument',
  variant: 'how it is built',
  stage: 'stage',
  external_id: 'the school’s own number',
  '-': 'not used',
}

/** list is the file as it was understood; onRead has it read as somebody says. */
type Props = { list: Preview; how: HowToRead; onRead: (how: HowToRead) => void }

/**
 * ImportColumns says how the file's columns were understood, and takes another word on them: the
 * school's next list is then understood by itself.
 */
export function ImportColumns({ list, how, onRead }: Props) {
  const unclear = list.rows.length === 0
  // Without a column for them each child's instrument would be asked for: usually one has them.
  const noInstrument = !unclear && !list.columns.some((c) => c.meaning === 'instrument')
  const headed = list.columns.some((c) => c.headed)
  function mean(at: number, meaning: string) {
    const meanings = list.columns.map((c) => c.meaning || '-')
    meanings[at] = meaning
    onRead({ ...how, meanings: meanings.map((m, n) => (n !== at && m === meaning && m !== '-' ? '-' : m)) })
  }
  return (
    <details open={unclear || noInstrument} className="border-y border-rule py-2">
      <summary className="min-h-10 cursor-pointer">
        {unclear
          ? 'Which column has the names? Say what each one is.'
          : `Understood as: ${list.columns
              .filter((c) => c.meaning)
              .map((c) => `${c.name} → ${words[c.meaning] ?? c.meaning}`)
              .join(', ')}.`}
        {noInstrument && ' Which column has the instruments?'}
      </summary>
      <label className="mt-2 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5"
          checked={headed}
          onChange={(e) => onRead({ ...how, headings: e.target.checked ? 'yes' : 'no' })}
        />
        The first line says what the columns are
      </label>
      <ul className="grid gap-3 sm:grid-cols-2">
        {list.columns.map((c, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns stand as in the file
          <li key={n}>
            <Choice
              label={`${c.name}: ${(c.samples ?? []).join(', ') || 'empty'}`}
              value={c.meaning || '-'}
              options={list.meanings.map((m) => ({ key: m, label: words[m] ?? m }))}
              onChange={(m) => mean(n, m)}
            />
          </li>
        ))}
      </ul>
    </details>
  )
}
