import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { People } from './People'
import { schoolQuery } from './queries'
import { SignOnSettings } from './SignOnSettings'
import { WhatWasDone } from './WhatWasDone'

/** SchoolPage is an administrator's: the school's people, how it runs, and what was done; no recording. */
export function SchoolPage() {
  const { school = '' } = useParams()
  const { data, error } = useQuery(schoolQuery(school))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the school" />
  const { state, waiting } = data
  const facts = [
    ['Classes', state.classes],
    ['Players', state.players],
    ['Takes in seven days', state.takes],
    ['Takes waiting', waiting.takes === 0 ? 'none' : `${waiting.takes}, the oldest ${Math.round(waiting.oldest_s)} s`],
    ['Could not be listened to since yesterday', waiting.failed],
    ['Database', `${(state.database_bytes / 1e6).toFixed(0)} MB`],
    ['Version', data.version],
  ]
  return (
    <>
      <h1 className="text-2xl">{data.name}</h1>
      <p className="text-soft">Time zone {data.time_zone}</p>
      <dl className="mt-4 grid grid-cols-2 gap-x-8 gap-y-2 border-y border-ink py-3 sm:grid-cols-4">
        {facts.map(([what, value]) => (
          <div key={what}>
            <dt className="text-sm text-soft">{what}</dt>
            <dd className="font-serif text-lg">{value}</dd>
          </div>
        ))}
      </dl>
      <People school={data} />
      <SignOnSettings school={data} />
      <WhatWasDone school={data.id} />
    </>
  )
}
