import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { answer, api } from '../../api/client'
import { Outbox } from '../../device/outbox'
import { OutboxContext } from '../../device/useOutbox'
import { Choice } from '../../ui/Choice'
import { longDay } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { DaySteps } from './DaySteps'
import type { Practice } from './queries'

/** NoOutbox keeps nothing and tells nobody: what is tried out is nobody's. */
class NoOutbox extends Outbox {
  override async keepMessage() {}
}

/** TryPage is a player's page as a director tries it out, with a simulated player at the microphone if wanted. */
export function TryPage() {
  const { classId = '', instrument = '' } = useParams()
  const navigate = useNavigate()
  const [outbox] = useState(() => new NoOutbox(''))
  const { data, error } = useQuery({
    queryKey: ['try', classId, instrument],
    queryFn: () =>
      answer(api.GET('/classes/{class}/try/{instrument}', { params: { path: { class: classId, instrument } } })),
    staleTime: Number.POSITIVE_INFINITY, // what is being tried stays as it is
  })
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening a player’s page" />
  return (
    <OutboxContext value={outbox}>
      <div className="mx-auto mb-5 max-w-2xl rounded-md border border-rule bg-sheet p-4">
        <p>
          You try out a player’s page{data.practice.day === data.today ? '' : ` of ${longDay(data.practice.day)}`}:
          nothing of it is kept. Without an instrument at hand, choose a simulated player under “Sounds and microphone”.
        </p>
        <div className="mt-2 flex flex-wrap items-end gap-4">
          <Choice
            label="As"
            value={instrument}
            options={data.instruments.map((i) => ({ key: i.key, label: i.name }))}
            onChange={(key) => navigate(`/class/${classId}/try/${key}`, { replace: true })}
          />
          <Link className="pb-3 underline" to={`/class/${classId}/set-up`}>
            Back to the class
          </Link>
        </div>
      </div>
      <DaySteps key={instrument} practice={data.practice as Practice} steps={data.practice.steps}>
        {() => null}
      </DaySteps>
    </OutboxContext>
  )
}
