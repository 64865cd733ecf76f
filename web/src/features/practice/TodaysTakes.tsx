import { Ribbon } from '../../ribbon/Ribbon'
import { type Result, ResultMark } from '../../ui/ResultMark'
import type { ShownTake } from './overlay'

/** TodaysTakes are the takes played so far today, newest first. */
export function TodaysTakes({ takes }: { takes: ShownTake[] }) {
  if (takes.length === 0) return null
  return (
    <section className="mt-8 border-t border-rule pt-3">
      <h2>Today so far</h2>
      <ol className="mt-2">
        {takes.map((t) => (
          <li key={t.id} className="flex items-center gap-4 py-1">
            <ResultMark result={resultOf(t)} withWord />
            {t.ribbon && (
              <span className="w-48">
                <Ribbon ribbon={t.ribbon} width={192} height={32} />
              </span>
            )}
            {t.state === 'kept' && <span className="text-xs text-soft">on this device</span>}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** resultOf is a take's mark: its result, or how far it has come. */
function resultOf(t: ShownTake): Result {
  if (t.state === 'failed') return 'failed'
  return t.result ?? 'waiting'
}
