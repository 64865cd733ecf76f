import { Picture } from './Picture'

/** done says which are ticked, where they are ticked at all; onTick turns one over. */
type Props = {
  items: string[]
  pictures: (string | undefined)[]
  done?: boolean[]
  onTick?: (n: number) => void
}

/** LessonCards are the things to do in their order, a card each: its number, its drawing, its words. */
export function LessonCards({ items, pictures, done = [], onTick }: Props) {
  return (
    <ol className="mt-4 grid gap-3 sm:grid-cols-2">
      {items.map((item, n) => {
        const card = (
          <>
            <span aria-hidden className="w-8 shrink-0 text-center font-serif text-xl text-warm">
              {n + 1}
            </span>
            <span className="shrink-0 [&_svg]:size-16">
              <Picture name={pictures[n]} />
            </span>
            <span className="grow leading-snug">{item}</span>
          </>
        )
        const look = `flex min-h-24 items-center gap-3 rounded-md border bg-sheet px-3 py-2 ${done[n] ? 'border-clean' : 'border-rule'}`
        return (
          <li key={item}>
            {onTick ? (
              <label className={`${look} cursor-pointer`}>
                {card}
                <input
                  type="checkbox"
                  className="size-7 shrink-0"
                  checked={done[n] ?? false}
                  onChange={() => onTick(n)}
                />
              </label>
            ) : (
              <div className={look}>{card}</div>
            )}
          </li>
        )
      })}
    </ol>
  )
}
