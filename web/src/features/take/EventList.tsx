import { Button } from '../../ui/Button'
import type { TakeDetail } from './queries'

/** What the ear calls its events, in a director's words. */
const names = {
  gap: 'Gap',
  break: 'Break',
  undertone: 'Undertone',
  'wrong-note': 'Another note',
  chirp: 'Squeak',
  tongue: 'Tongue touched the note',
  'late-start': 'Late start',
  scoop: 'Scoop',
  sag: 'Sag',
  waver: 'Waver',
}

/** EventList names what happened; each row plays from just before it. */
export function EventList({ take, onSeek }: { take: TakeDetail; onSeek: (seconds: number) => void }) {
  return (
    <section>
      <h2>What happened</h2>
      {take.events.length === 0 && <p className="mt-2 text-soft">No gap, break or other note.</p>}
      <ol className="mt-2 space-y-1">
        {take.events.map((e) => (
          <li key={`${e.t_s} ${e.kind}`} className="flex flex-wrap items-center gap-3">
            <Button onClick={() => onSeek(e.t_s - 0.7)} data-at={e.t_s.toFixed(1)}>
              <span className="sr-only">Play {names[e.kind as keyof typeof names]} at </span>▸{' '}
              {(e.t_s - take.score_start_s).toFixed(1)} s
            </Button>
            <span>
              {names[e.kind as keyof typeof names] ?? e.kind}, {e.duration_s.toFixed(2)} s
              {e.interval_semitones
                ? `, ${Math.abs(e.interval_semitones)} half steps ${e.interval_semitones > 0 ? 'up' : 'down'}`
                : ''}
              {e.partial ? ` (partial ${e.partial})` : ''}
              {e.cents ? `, ${Math.abs(Math.round(e.cents))} cents` : ''}
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}
