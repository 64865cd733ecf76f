import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { Field } from '../../ui/Field'
import { type Kind, type Own, ownQuery, useForgetOwn } from './queries'

/** longTone is the kind of the class's own long tone. */
type Props = { kinds: Kind[]; longTone: string; onAdd: (kind: Kind) => void; onAddOwn: (own: Own) => void }

/**
 * CatalogueList is the catalogue by purpose, the director's own exercises first; pressing
 * one puts it on the day.
 */
export function CatalogueList({ kinds, longTone, onAdd, onAddOwn }: Props) {
  const [search, setSearch] = useState('')
  const fits = (k: Kind) => `${k.name} ${k.why} ${k.group}`.toLowerCase().includes(search.trim().toLowerCase())
  const found = kinds.filter(fits)
  const groups = [...new Set(found.map((k) => k.group))]
  return (
    <nav aria-label="Catalogue of exercises" className="text-sm">
      <Field
        label="Find an exercise"
        type="search"
        className="mb-3"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {found.length === 0 && <p className="text-soft">No exercise is called that, or is for that.</p>}
      {search === '' && <OwnExercises onAdd={onAddOwn} />}
      {groups.map((group) => (
        <Group key={group} name={group}>
          {found
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
      data-add={name}
      className="flex w-full gap-1.5 rounded-sm py-1 text-left hover:bg-warm-wash"
      onClick={onAdd}
    >
      <span aria-hidden className="text-soft">
        +
      </span>
      <span>
        <span className="sr-only">Add</span> {name}
        <span className="block text-xs leading-tight text-soft">{why}</span>
      </span>
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
