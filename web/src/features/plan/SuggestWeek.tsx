import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { type Item, suggestionsQuery } from './queries'

/** onAdd gets what the director accepts, into the week in view. */
type Props = { classId: string; monday: string; onAdd: (...items: Item[]) => void; onClose: () => void }

/** SuggestWeek proposes steps from what was heard, to be taken line by line. */
export function SuggestWeek({ classId, monday, onAdd, onClose }: Props) {
  const { data, error } = useQuery(suggestionsQuery(classId, monday))
  const [taken, setTaken] = useState<string[]>([])
  const take = (item: Item) => {
    onAdd(item)
    setTaken([...taken, item.key])
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Suggested for this week"
      says="From the takes of the last fortnight. Nothing is added unless you take it."
    >
      {error && <Problem error={error} />}
      {!data && !error && <Waiting />}
      {data && (
        <>
          <p className="mt-3 text-sm text-soft">{data.heard} takes were heard.</p>
          {data.suggestions.length === 0 && (
            <p className="mt-3">
              Nothing stands out: no fault is shared by enough players of a section. Keep what you have.
            </p>
          )}
          <ul className="mt-3 divide-y divide-rule border-y border-rule">
            {data.suggestions.map((s) => (
              <li key={s.item?.key ?? `${s.act} ${s.section}`} className="flex items-start justify-between gap-4 py-3">
                <span>
                  <span className="font-serif">{s.name}</span>
                  {s.section && <span className="text-sm text-soft"> for {s.section.toLowerCase()}</span>}
                  <span className="block text-sm">{s.reason}</span>
                </span>
                {s.item && <Take item={s.item} taken={taken} onTake={take} />}
              </li>
            ))}
          </ul>
        </>
      )}
    </Dialog>
  )
}

type TakeProps = { item: Item; taken: string[]; onTake: (item: Item) => void }

function Take({ item, taken, onTake }: TakeProps) {
  const is = taken.includes(item.key)
  return (
    <Button disabled={is} onClick={() => onTake(item)}>
      {is ? 'Taken' : 'Take it'}
    </Button>
  )
}
