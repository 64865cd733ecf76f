import type { Schemas } from '../../api/client'

/** ToneCourse is how a player's tone went over the weeks, against nothing but itself. */
export function ToneCourse({ tone }: { tone: Schemas['ToneCourse'] }) {
  return (
    <section className="mt-8">
      <h2>Tone</h2>
      <p className="mt-1">{tone.says}</p>
      {tone.turns.length > 0 && (
        <dl className="mt-2 flex flex-wrap gap-x-10 gap-y-2">
          {tone.turns.map((t) => (
            <div key={t.quality}>
              <dt className="text-sm text-soft">{t.label}</dt>
              <dd className={t.trend?.clear ? 'font-semibold' : ''}>{t.word}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  )
}
