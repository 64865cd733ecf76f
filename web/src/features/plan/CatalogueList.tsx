import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { type Kind, type Own, ownQuery, useForgetOwn } from './queries'

/** longTone is the kind of the class's own long tone. */
type Props = { kinds: Kind[]; longTone: string; onAdd: (kind: Kind) => void; onAddOwn: (own: Own) => void }

/**
 * CatalogueList is the catalogue by purpose, the director's own exercises first; pressing
 * one puts it on the day.
 */
export function CatalogueList({ kinds, longTone, onAdd, onAddOwn }: Props) {
  const groups = [...new Set(kinds.map((k) => k.group))]
  return (
    <nav aria-label="Catalogue of exercises" className="text-sm">
      <OwnExercises onAdd={onAddOwn} />
      {groups.map((group) => (
        <Group key={group} name={group}>
          {kinds
            .filter((k) => k.group === group)
            .map((k) => (
              <li key={k.key}>
                <Add name={k.name} why={k.why} onAdd={() => onAdd(k)} />
                {k.key === longTone && <span className="sr-only">, as this class holds its long tones</span>}
              </li>
            ))}
        </Group>
      ))}
    </nav>
  )
}

function Group({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section className="mb-3">
      <h3 className="border-b border-rule text-sm">{name}</h3>
      <ul>{children}</ul>
    </section>
  )
}

function Add({ name, why, onAdd }: { name: string; why: string; onAdd: () => void }) {
  return (
    <button
      type="button"
      title={why}
      aria-label={`Add ${name}`}
      className="flex min-h-8 w-full items-center gap-1.5 rounded-sm text-left hover:bg-warm-wash"
      onClick={onAdd}
    >
      <span aria-hidden className="text-soft">
        +
      </span>
      {name}
    </button>
  )
}

/** OwnExercises are the director's own, under the director's names; nothing where there are none. */
function OwnExercises({ onAdd }: { onAdd: (own: Own) => void }) {
  const { data } = useQuery(ownQuery)
  const forget = useForgetOwn()
  if (!data?.exercises.length) return null
  return (
    <Group name="Your own">
      {data.exercises.map((own) => (
        <li key={own.id} className="flex items-center">
          <Add name={own.name} why={own.sentence} onAdd={() => onAdd(own)} />
          <button
            type="button"
            aria-label={`Forget ${own.name}`}
            title="Forget it: steps made of it stay"
            className="min-h-8 min-w-8 text-soft hover:text-ink"
            onClick={() => forget.mutate(own.id)}
          >
            ×
          </button>
        </li>
      ))}
    </Group>
  )
}
