import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { Button } from '../../ui/Button'
import { longDay } from '../../ui/days'
import { ResultMark } from '../../ui/ResultMark'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { othersQuery, type TakeDetail, takeQuery } from './queries'

/**
 * A take to compare with: the one before, the best, or a classmate's, whose name is told
 * when asked for.
 */
type Other = Schemas['OtherTake']

/** Beside lays another take under this one: the one before, the best, or a section mate's, whose name is hidden until asked for. */
export function Beside({ take }: { take: TakeDetail }) {
  const { data } = useQuery(othersQuery(take.id))
  const [chosen, setChosen] = useState<{ other: Other; label: string }>()
  const [named, setNamed] = useState(false)
  if (!data) return null
  const own = take.player.split(' ')[0]
  const choices: { other: Other; label: string }[] = [
    ...(data.previous ? [{ other: data.previous, label: 'the take before' }] : []),
    ...(data.best ? [{ other: data.best, label: `${own}’s best` }] : []),
    ...data.mates.map((other, n) => ({ other, label: named ? other.name : `section mate ${n + 1}` })),
  ]
  if (choices.length === 0) return null
  return (
    <section className="no-print mt-4">
      <h2>Compare with</h2>
      <div className="mt-2 flex flex-wrap gap-2">
        {choices.map((c) => (
          <Button
            key={c.label + c.other.id}
            aria-pressed={chosen?.other.id === c.other.id && chosen.label === c.label}
            className="aria-pressed:border-2 aria-pressed:border-warm"
            onClick={() => setChosen(c)}
          >
            <ResultMark result={c.other.result} size={13} /> {c.label}
          </Button>
        ))}
      </div>
      {data.mates.length > 0 && (
        <label className="mt-1 flex min-h-11 items-center gap-2 text-sm">
          <input type="checkbox" className="size-5" checked={named} onChange={(e) => setNamed(e.target.checked)} />
          show names
        </label>
      )}
      {chosen && <OtherTake take={take} id={chosen.other.id} label={chosen.label} />}
    </section>
  )
}

/** onOneAxis draws a ribbon over the time of another: what was played at once stands one under the other. */
function onOneAxis(ribbon: Schemas['Ribbon'], of: Schemas['Ribbon'] | undefined): Schemas['Ribbon'] {
  return of ? { ...ribbon, from_s: of.from_s, to_s: of.to_s } : ribbon
}

/** Pixels of the other ribbon: so many that both fit a screen. */
const height = 180

/** OtherTake is the other take under this one, beat under beat, heard by itself. */
function OtherTake({ take, id, label }: { take: TakeDetail; id: string; label: string }) {
  const { data: other } = useQuery(takeQuery(id))
  if (!other?.ribbon) return <p className="mt-3 text-soft">Opening it …</p>
  return (
    <figure className="mt-3 border-y border-rule bg-sheet py-2">
      <figcaption className="px-3 text-sm">
        <Link className="underline" to={`/take/${id}`}>
          {label}
        </Link>
        , {longDay(other.day)}: {other.verdict?.sentence}
      </figcaption>
      <WideRibbon ribbon={onOneAxis(other.ribbon, take.ribbon)} height={height} />
      {!other.sound_gone && (
        <div className="px-3">
          <SoundPlayer src={`/api/takes/${id}/audio.wav`} label={label} preload="none" />
        </div>
      )}
    </figure>
  )
}
