import type { Kind } from './queries'

/** CatalogueList is the catalogue by purpose; pressing a kind puts it on the day. */
export function CatalogueList({ kinds, onAdd }: { kinds: Kind[]; onAdd: (kind: Kind) => void }) {
  const groups = [...new Set(kinds.map((k) => k.group))]
  return (
    <nav aria-label="Catalogue of exercises" className="text-sm">
      {groups.map((group) => (
        <section key={group} className="mb-3">
          <h3 className="border-b border-rule text-sm">{group}</h3>
          <ul>
            {kinds
              .filter((k) => k.group === group)
              .map((k) => (
                <li key={k.key}>
                  <button
                    type="button"
                    title={k.why}
                    aria-label={`Add ${k.name}`}
                    className="flex min-h-8 w-full items-center gap-1.5 rounded-sm text-left hover:bg-warm-wash"
                    onClick={() => onAdd(k)}
                  >
                    <span aria-hidden className="text-soft">
                      +
                    </span>
                    {k.name}
                  </button>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </nav>
  )
}
