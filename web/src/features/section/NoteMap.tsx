import type { Schemas } from '../../api/client'

/** A note of the instrument, and how its players play it. */
type Note = Schemas['MapNote']

const fewest = 5 // takes a share is drawn from; under it there are counts only
const wide = 60 // cents drawn to each side
const lane = 150 // pixels of the spread's drawing

/** NoteMap is an instrument's notes from low to high: how often they come out, where they lie, how still they are. */
export function NoteMap({ map }: { map: Schemas['InstrumentMap'] }) {
  if (map.notes.length === 0)
    return <p className="mt-6 text-soft">{map.instrument}: nothing was played in these days.</p>
  const wall = map.notes.find((n) => n.wall)
  return (
    <section className="mt-6">
      <h2>{map.instrument}</h2>
      <p className="mt-1">
        {wall
          ? `The next trouble spot is ${wall.written}: it comes out in ${wall.good} of ${wall.takes} takes.`
          : 'No trouble spots: every note comes out more often than not.'}
      </p>
      <div className="overflow-x-auto">
        <table className="mt-3 border-collapse">
          <thead>
            <tr className="border-y border-ink text-left text-sm text-soft">
              <th className="py-2 pr-6 font-normal">Note</th>
              <th className="pr-6 font-normal">Comes out</th>
              <th className="pr-6 font-normal">Flat, sharp: the middle half of the players</th>
              <th className="pr-6 font-normal">Waver, ± cents</th>
              <th className="font-normal">Players</th>
            </tr>
          </thead>
          <tbody>
            {map.notes.map((n) => (
              <Row key={n.sounding_midi} note={n} />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

/**
 * Row is a note with what the section makes of it. A wall is where the first note of a
 * stretch fails more often than not.
 */
function Row({ note: n }: { note: Note }) {
  return (
    <tr className={`border-b border-rule ${n.wall ? 'bg-warm-wash' : ''}`} data-note={n.written}>
      <th scope="row" className="h-10 pr-6 pl-1 text-left font-serif text-lg font-normal whitespace-nowrap">
        {n.written} <span className="font-sans text-xs text-soft">sounds {n.concert}</span>
        {n.hard && <span className="font-sans text-xs text-soft"> · hard</span>}
        {n.wall && <span className="font-sans text-sm text-warm"> · the next trouble spot</span>}
      </th>
      <td className="pr-6">
        <Share good={n.good} takes={n.takes} />
      </td>
      <td className="pr-6">{n.centre_cents.of > 0 && <Centre spread={n.centre_cents} />}</td>
      <td className="pr-6 tabular-nums">{n.steadiness_cents.of > 0 && Math.round(n.steadiness_cents.middle)}</td>
      <td className="text-soft tabular-nums">{n.players}</td>
    </tr>
  )
}

/** Share is counts, with a bar where there are enough of them. */
function Share({ good, takes }: { good: number; takes: number }) {
  return (
    <span className="flex items-center gap-3">
      <span className="w-20 tabular-nums" data-testid="count">
        {good} of {takes}
      </span>
      {takes >= fewest && (
        <svg width="90" height="10" aria-hidden>
          <rect width="90" height="10" fill="var(--band)" />
          <rect width={(90 * good) / takes} height="10" fill="var(--ink)" />
        </svg>
      )}
    </span>
  )
}

/**
 * Centre draws where the players' notes lie around the pitch: the middle half as a bar,
 * the median as a ring. Cents are for directors; players see no such numbers.
 */
function Centre({ spread }: { spread: Schemas['Spread'] }) {
  const x = (cents: number) => lane / 2 + (Math.max(-wide, Math.min(wide, cents)) / wide) * (lane / 2 - 4)
  const says = `${cents(spread.middle)}; half the players between ${cents(spread.low)} and ${cents(spread.high)}`
  return (
    <span className="flex items-center gap-3">
      <svg width={lane} height="22" role="img" aria-label={says}>
        <line x1={lane / 2} x2={lane / 2} y1="0" y2="22" stroke="var(--edge)" />
        <line x1={x(spread.low)} x2={x(spread.high)} y1="11" y2="11" stroke="var(--ink)" strokeWidth="6" />
        <circle cx={x(spread.middle)} cy="11" r="4.5" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      </svg>
      <span className="text-sm text-soft">{cents(spread.middle)}</span>
    </span>
  )
}

/** cents says a distance as a director says it. */
function cents(v: number): string {
  const n = Math.round(v)
  if (n === 0) return 'in the middle'
  return n < 0 ? `${-n} flat` : `${n} sharp`
}
