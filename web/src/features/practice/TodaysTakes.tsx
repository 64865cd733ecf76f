import type { Schemas } from '../../api/client'
import { Ribbon } from '../../ribbon/Ribbon'
import { ResultMark } from '../../ui/ResultMark'

/** TodaysTakes are the takes played so far today, newest first. */
export function TodaysTakes({ takes }: { takes: Schemas['PracticeTake'][] }) {
  if (takes.length === 0) return null
  return (
    <section className="mt-8 border-t border-rule pt-3">
      <h2>Today so far</h2>
      <ol className="mt-2">
        {takes.map((t) => (
          <li key={t.id} className="flex items-center gap-4 py-1">
            <ResultMark
              result={t.state === 'done' && t.result ? t.result : t.state === 'failed' ? 'failed' : 'waiting'}
              withWord
            />
            {t.ribbon && (
              <span className="w-48">
                <Ribbon ribbon={t.ribbon} width={192} height={32} />
              </span>
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
