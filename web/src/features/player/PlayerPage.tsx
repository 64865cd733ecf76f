import { queryOptions, useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import { answer, api } from '../../api/client'
import { buttonClass } from '../../ui/Button'
import { PrintButton } from '../../ui/PrintButton'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { Days } from './Days'
import { ForgetPlayer } from './ForgetPlayer'
import { GrowthLine } from './GrowthLine'
import { Ladders } from './Ladders'
import { PlayerActs } from './PlayerActs'
import { Said } from './Said'
import { ToneCourse } from './ToneCourse'

/** growthQuery asks for the usual twelve weeks; the dots lead to the takes themselves. */
const growthQuery = (classId: string, player: string) =>
  queryOptions({
    queryKey: ['growth', classId, player],
    queryFn: () =>
      answer(api.GET('/classes/{class}/players/{player}/growth', { params: { path: { class: classId, player } } })),
  })

/** PlayerPage is how one player has grown: by week, with the takes behind every dot. */
export function PlayerPage() {
  const { classId = '', playerId = '' } = useParams()
  const { data, error } = useQuery(growthQuery(classId, playerId))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Looking back" />
  // A week without a note that was heard has no dot. Nought cents off would look like
  // perfection.
  const dots = (key: 'best_hold_s' | 'centre_cents' | 'steadiness_cents') =>
    data.weeks
      .filter((w) => (key === 'best_hold_s' ? w.best_hold_s > 0 : w.notes > 0))
      .map((w) => ({ monday: w.monday, value: w[key], takes: w.takes }))
  return (
    <>
      <ClassHead classId={classId} name={data.class.name} at="none" />
      <header className="border-t border-ink pt-4">
        <span className="no-print float-right ml-3">
          <PrintButton />
        </span>
        <a
          className={`${buttonClass()} no-print float-right`}
          href={`/api/classes/${classId}/players/${playerId}/report.pdf`}
          // The page for home opens beside this one, to be printed, and is not kept in the browser.
          target="_blank"
          rel="noreferrer"
        >
          A page for home (PDF)
        </a>
        <h2 className="text-2xl">{data.player.name}</h2>
        <p className="text-soft">
          {data.instrument} ·{' '}
          <Link className="underline" to={`/class/${classId}/section/${encodeURIComponent(data.section)}`}>
            {data.section}
          </Link>{' '}
          · practiced {data.days.length} {data.days.length === 1 ? 'day' : 'days'} in these weeks
        </p>
      </header>
      <div className="no-print mt-3">
        <PlayerActs classId={classId} playerId={playerId} name={data.player.name} today={data.today} />
      </div>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-3">
        <GrowthLine title="Longest hold" unit="s" says={data.hold.says} points={dots('best_hold_s')} />
        <GrowthLine
          title="In tune (average distance)"
          unit="cents"
          says={data.centre.says}
          points={dots('centre_cents')}
        />
        <GrowthLine title="Waver" unit="± cents" says={data.steadiness.says} points={dots('steadiness_cents')} />
      </div>
      <ToneCourse tone={data.tone} />
      <Days days={data.days} />
      <div className="mt-8 grid gap-10 lg:grid-cols-2">
        <Ladders ladders={data.ladders} from={data.weeks[0]?.monday} to={data.today} />
        <Said comments={data.comments} open />
      </div>
      <p className="no-print mt-10 text-sm">
        <a
          className="underline"
          href={`/api/classes/${classId}/players/${playerId}/everything.zip?sounds=true`}
          download
        >
          Everything kept of {data.player.name} (ZIP)
        </a>
        , for the family or another school
      </p>
      <ForgetPlayer classId={classId} playerId={playerId} name={data.player.name} />
    </>
  )
}
