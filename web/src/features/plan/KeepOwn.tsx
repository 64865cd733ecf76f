import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { type Item, useKeepOwn } from './queries'

/** onChange gets the step under its new name. */
type Props = { item: Item; onChange: (item: Item) => void }

/** KeepOwn gives a step the director's own name, and keeps it as an exercise for other weeks and classes. */
export function KeepOwn({ item, onChange }: Props) {
  const [name, setName] = useState(item.called ?? '')
  const keep = useKeepOwn()
  const called = name.trim()
  return (
    <details className="mt-3 text-sm">
      <summary className="cursor-pointer text-soft">
        {item.called ? `You call it ${item.called}` : 'Keep it as an exercise of your own'}
      </summary>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Field label="Your name for it" maxLength={60} value={name} onChange={(e) => setName(e.target.value)} />
        <Button
          disabled={!called || keep.isPending}
          onClick={() =>
            keep.mutate(
              { name: called, kind: item.kind, parameters: item.parameters },
              { onSuccess: () => onChange({ ...item, called }) },
            )
          }
        >
          Keep under this name
        </Button>
      </div>
      <p className="mt-1 text-soft" aria-live="polite">
        {keep.isSuccess ? 'Kept: it stands first in the catalogue, in all your classes.' : 'Players see this name.'}
      </p>
      {keep.error && <Problem error={keep.error} />}
    </details>
  )
}
