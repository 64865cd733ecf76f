import { ResultMark } from '../../ui/ResultMark'
import type { Excerpt } from './queries'

/** Queue is what is to be heard, in order, each with why. */
export function Queue({ excerpts, place, onGo }: { excerpts: Excerpt[]; place: number; onGo: (n: number) => void }) {
  return (
    <ol aria-label="To hear" className="mt-4 max-h-[26rem] overflow-y-auto border-y border-rule">
      {excerpts.map((e, n) => (
        <li key={e.take} className="border-b border-rule last:border-0">
          <button
            type="button"
            aria-current={n === place ? 'step' : undefined}
            onClick={() => onGo(n)}
            className={`w-full border-l-4 px-3 py-1.5 text-left ${n === place ? 'border-warm bg-warm-wash' : 'border-transparent'} ${n < place ? 'text-soft' : ''}`}
          >
            <span className="flex items-center justify-between gap-2">
              <span>{e.name}</span>
              <ResultMark result={e.word ?? e.verdict.result} overruled={Boolean(e.word)} size={14} />
            </span>
            <span className="block text-xs text-soft">{e.why[0]?.text}</span>
          </button>
        </li>
      ))}
    </ol>
  )
}
