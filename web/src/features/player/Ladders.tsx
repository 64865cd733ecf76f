import type { Schemas } from '../../api/client'
import { shortDay } from '../../ui/days'

/** A ladder, where the player stands, and every time that changed. */
type Growth = Schemas['LadderGrowth']
/**
 * from and to are the dates the page looks at; the drawings share them, so that they can
 * be compared.
 */
type Props = { ladders: Growth[]; from?: string; to: string }

/** Ladders is where a player stands on each ladder, and the way there. */
export function Ladders({ ladders, from, to }: Props) {
  return (
    <section>
      <h2>Ladders</h2>
      {ladders.length === 0 && <p className="mt-2 text-soft">None was tried yet.</p>}
      {ladders.map((l) => (
        <div key={l.key} className="mt-4">
          <h3 className="text-lg">{l.name}</h3>
          <p className="text-sm">
            {l.reached ? 'The goal is reached. ' : ''}On rung {l.rung} of {l.rungs.length}: {l.rungs[l.rung - 1]}
          </p>
          <Way ladder={l} from={firstOf(l, from)} to={to} />
        </div>
      ))}
    </section>
  )
}

/** Units of the drawing; time runs true along it, so a holiday is a long step. */
const width = 480
const step = 8 // px a rung
/** Room at both ends. */
const edge = 8

/** Way is a staircase: along is time, up are rungs. A dot marks where the goal was reached. */
function Way({ ladder, from, to }: { ladder: Growth; from: string; to: string }) {
  const turns = ladder.history
  const rungs = ladder.rungs.length
  const height = rungs * step + 2 * edge
  const span = Math.max(1, daysBetween(from, to))
  const x = (day: string) => edge + (Math.max(0, daysBetween(from, day)) / span) * (width - 2 * edge)
  const y = (rung: number) => height - edge - (rung - 0.5) * step
  const began = turns[0]?.from ?? ladder.rung
  const path = turns.map((t) => `H${x(t.day).toFixed(1)}V${y(t.rung)}`).join('')
  const goal = turns.find((t) => t.move === 'goal')
  return (
    <figure>
      <svg viewBox={`0 0 ${width} ${height}`} className="mt-1 w-full" role="img" aria-label={spoken(ladder)}>
        {ladder.rungs.map((r, n) => (
          <path key={r} d={`M0 ${y(n + 1)}H${width}`} stroke="var(--rule)" />
        ))}
        <path d={`M${x(from)} ${y(began)}${path}H${x(to)}`} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
        {goal && <circle cx={x(goal.day)} cy={y(goal.rung)} r="5" fill="var(--warm)" />}
      </svg>
      <figcaption className="flex justify-between text-xs text-soft">
        <span>{shortDay(from)}</span>
        <span>{turns.length === 0 ? 'no rung passed yet' : turned(turns)}</span>
        <span>{shortDay(to)}</span>
      </figcaption>
    </figure>
  )
}

/** turned counts the ways up and back, in words. */
function turned(turns: Schemas['Turn'][]): string {
  const up = turns.filter((t) => t.move === 'up' || t.move === 'goal').length
  const back = turns.filter((t) => t.move === 'back').length
  const passed = `${up} ${up === 1 ? 'rung' : 'rungs'} passed`
  return back === 0 ? passed : `${passed}, led back ${back === 1 ? 'once' : `${back} times`}`
}

/** What a change of rung was, as one says it. */
const moved = { up: 'up to', back: 'back to', placed: 'put on', goal: 'reached the goal on' } as const

/** spoken is the staircase for a screen reader, step by step. */
function spoken(l: Growth): string {
  if (l.history.length === 0) return `${l.name}: on rung ${l.rung}, no rung passed yet`
  return `${l.name}: ${l.history.map((t) => `${shortDay(t.day)}, ${moved[t.move]} rung ${t.rung}`).join('; ')}`
}

/**
 * firstOf is where the drawing begins: the page's first day, or the ladder's where that
 * is earlier.
 */
function firstOf(l: Growth, from?: string): string {
  const first = l.history[0]?.day
  return [from, first].filter((d) => d !== undefined).sort()[0] ?? new Date().toISOString().slice(0, 10)
}

/**
 * daysBetween counts days between two dates; both are midnights in UTC, so no hour of
 * summer gets in.
 */
function daysBetween(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / 86_400_000
}
