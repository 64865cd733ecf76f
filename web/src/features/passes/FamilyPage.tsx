import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { buttonClass } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { Days, GrowthLine, Ladders, Said } from '../player'
import { childQuery } from './queries'

/** FamilyPage is one child's growth and what was said, for its home: no take, and no other child. */
export function FamilyPage() {
  const { player = '' } = useParams()
  const { data, error } = useQuery(childQuery(player))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Looking back" />
  const dots = (key: 'best_hold_s' | 'steadiness_cents') =>
    data.weeks
      .filter((w) => (key === 'best_hold_s' ? w.best_hold_s > 0 : w.notes > 0))
      .map((w) => ({ monday: w.monday, value: w[key], takes: [] }))
  return (
    <>
      <header className="border-b border-ink pb-4">
        <a
          className={`${buttonClass()} no-print float-right`}
          href={`/api/players/${player}/report.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          A page to print (PDF)
        </a>
        <h1 className="text-2xl">{data.player.name}</h1>
        <p className="text-soft">
          {data.instrument} · {data.class.name}
        </p>
      </header>
      <p className="mt-4 max-w-2xl">
        {data.days.length === 0
          ? 'Nothing was played in these weeks yet.'
          : `Played on ${data.days.length} ${data.days.length === 1 ? 'day' : 'days'} of the last twelve weeks.`}{' '}
        A few minutes on most days do more than an hour on one. Ask to hear the longest, most beautiful note.
      </p>
      <Days days={data.days} />
      <div className="mt-6 grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <GrowthLine title="Longest note in one breath" unit="s" says={data.hold.says} points={dots('best_hold_s')} />
        <GrowthLine
          title="How much the note wavers"
          unit="less is steadier"
          says={data.steadiness.says}
          points={dots('steadiness_cents')}
        />
      </div>
      <div className="mt-8 grid gap-10 lg:grid-cols-2">
        <Said comments={data.comments} />
        <Ladders ladders={data.ladders} from={data.weeks[0]?.monday} to={data.today} />
      </div>
      <p className="mt-8 text-sm text-soft">
        You see your own child here, and nobody else’s. Recordings stay between the child and the director. The director
        can end this page at any time, and so can you: ask for it.
      </p>
    </>
  )
}
