import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { People } from './People'
import { type School, schoolQuery, useAskConsent } from './queries'
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
    ['Free for recordings', data.free_bytes > 0 ? `${(data.free_bytes / 1e9).toFixed(1)} GB` : 'a bucket’s'],
    ['Last backup', lastBackup(data)],
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
      {data.backups[0]?.problem && (
        <p role="alert" className="mt-4 border-l-4 border-not-yet pl-3">
          The last backup was not finished: {data.backups[0].problem}
        </p>
      )}
      <People school={data} />
      <AskConsent school={data} />
      <SignOnSettings school={data} />
      <WhatWasDone school={data.id} />
    </>
  )
}

/** lastBackup is when it was made, or that none is. */
function lastBackup({ backups, nightly }: School): string {
  const done = backups.find((b) => !b.problem)
  if (done) return moment(done.ended_at)
  return nightly ? 'none yet; tonight' : 'none is made from here'
}

/** AskConsent says whether homes are asked before anything is recorded. */
function AskConsent({ school }: { school: School }) {
  const ask = useAskConsent(school.id)
  return (
    <section aria-label="Consent" className="mt-8 max-w-2xl">
      <h2>Consent</h2>
      <label className="mt-1 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5"
          checked={school.consent_needed}
          disabled={ask.isPending}
          onChange={(e) => ask.mutate(e.target.checked)}
        />
        Homes are asked before anything is recorded
      </label>
      <p className="text-soft">
        Until a home has said yes, its child practices and nothing is kept; recordings that are there already stay their
        time. Each class writes the answers down under “Consent”. What your law and your district ask for comes first.
      </p>
      {ask.error && <Problem error={ask.error} />}
    </section>
  )
}
