import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type SetUp, settingsOf, useSaveSettings } from './queries'

/** TipBook lets a director put own words in the place of any tip. */
export function TipBook({ classId, setUp }: { classId: string; setUp: SetUp }) {
  const [own, setOwn] = useState<Record<string, string>>(setUp.own_tips)
  const save = useSaveSettings(classId)
  // The order of the list is the order tips are looked for in; it is kept, and with it which
  // one wins.
  const causes = [...new Set(setUp.tips.map((t) => t.cause))]
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        // Tips are saved with the class's settings: one route, and one place that checks them.
        save.mutate({ ...settingsOf(setUp), tips: own })
      }}
    >
      <p className="max-w-3xl text-soft">
        One tip is given with each take that is not clean: the first that fits. A tip left empty is never given. Words
        in braces are said in the class’s picture for air.
      </p>
      <p className="sticky top-0 z-10 flex items-center gap-4 bg-paper py-3">
        <Button type="submit" look="main" disabled={save.isPending}>
          Save the tips
        </Button>
        <span className="text-sm text-soft" aria-live="polite">
          {save.isSuccess && 'Saved.'}
        </span>
      </p>
      {save.error && <Problem error={save.error} />}
      {causes.map((cause) => (
        <section key={cause} className="mt-3">
          <h2 className="first-letter:uppercase">{cause.replaceAll('-', ' ')}</h2>
          <ul>
            {setUp.tips
              .filter((t) => t.cause === cause)
              .map((t) => (
                <li key={t.key} className="grid gap-2 border-b border-rule py-2 sm:grid-cols-[14rem_1fr_auto]">
                  <label htmlFor={`tip-${t.key}`} className="text-sm text-soft">
                    {[t.only?.join(', ') ?? t.family, t.group, t.register && `${t.register} notes`, way(t.direction)]
                      .filter(Boolean)
                      .join(', ') || 'everyone'}
                  </label>
                  <input
                    id={`tip-${t.key}`}
                    className="min-h-9 w-full rounded-md border border-edge bg-sheet px-2 text-base"
                    maxLength={300}
                    value={own[t.key] ?? t.text}
                    onChange={(e) => setOwn({ ...own, [t.key]: e.target.value })}
                  />
                  {/* Ours can always be had back: an own tip hides it and does not replace it. */}
                  {own[t.key] !== undefined && (
                    <Button
                      look="quiet"
                      onClick={() => setOwn(Object.fromEntries(Object.entries(own).filter(([k]) => k !== t.key)))}
                    >
                      Our words
                    </Button>
                  )}
                </li>
              ))}
          </ul>
        </section>
      ))}
    </form>
  )
}

/** way says which way a reading was off, in the words tips are looked for by. */
const way = (direction?: number) =>
  direction === -1 ? 'too low, short or early' : direction === 1 ? 'too high, long or late' : ''
