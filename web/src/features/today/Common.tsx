import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'

/** chosen is the finding whose takes the board is narrowed to. */
type Props = { common: Schemas['Common'][]; chosen: string | null; onChoose: (key: string | null) => void }

/** Common is what the class and its sections share, in sentences; each shows the takes behind it on the board. */
export function Common({ common, chosen, onChoose }: Props) {
  if (common.length === 0) return null
  return (
    <section aria-label="In common">
      <ul className="space-y-0.5">
        {common.map((c) => {
          const key = keyOf(c)
          return (
            <li key={key}>
              <button
                type="button"
                aria-pressed={key === chosen}
                onClick={() => onChoose(key === chosen ? null : key)}
                className="min-h-8 border-l-4 border-transparent pl-2 text-left font-serif hover:border-edge aria-pressed:border-warm aria-pressed:bg-warm-wash"
              >
                {c.sentence}
              </button>
            </li>
          )
        })}
      </ul>
      {chosen && (
        <Button look="quiet" onClick={() => onChoose(null)}>
          Show everybody again
        </Button>
      )}
    </section>
  )
}

/** keyOf names what is common in the address bar. */
export function keyOf(c: Schemas['Common']): string {
  return [c.section, c.step, c.cause].join('~')
}
