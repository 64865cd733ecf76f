import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { buttonClass } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { moment } from '../../ui/moment'
import { Problem } from '../../ui/Problem'
import { auditQuery } from './queries'

/** WhatWasDone is the log that whoever answers for the children reads: who saw, heard, changed and took out what. */
export function WhatWasDone({ school }: { school: string }) {
  const [days, setDays] = useState('7')
  const { data, error } = useQuery({ ...auditQuery(school, Number(days)), placeholderData: keepPreviousData })
  return (
    <section aria-label="What was done" className="mt-8">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2>What was done</h2>
        <div className="flex items-end gap-4">
          <Choice
            label="Days"
            value={days}
            options={['1', '7', '30', '90'].map((d) => ({ key: d, label: d }))}
            onChange={setDays}
          />
          <a className={buttonClass('quiet')} href={`/api/schools/${school}/audit.csv`} download>
            The last 90 days as CSV
          </a>
        </div>
      </div>
      {error && <Problem error={error} />}
      {data && (
        <div className="mt-2 overflow-x-auto">
          <table className="w-full border-collapse text-sm">
            <thead>
              <tr className="border-b border-ink text-left text-soft">
                {['When', 'Who', 'Did', 'Class', 'Player'].map((h) => (
                  <th key={h} scope="col" className="py-1 pr-3 font-normal">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.lines.map((l, n) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: lines are never reordered, and two may say the same
                <tr key={n} className="border-b border-rule align-top">
                  <td className="py-1 pr-3 whitespace-nowrap">{moment(l.at)}</td>
                  <td className="py-1 pr-3">{l.who || 'somebody unknown'}</td>
                  <td className="py-1 pr-3">{l.action}</td>
                  <td className="py-1 pr-3">{l.class}</td>
                  <td className="py-1">{l.player}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.lines.length === 0 && <p className="mt-2 text-soft">Nothing was done in these days.</p>}
          {data.more && <p className="mt-2 text-soft">There is more: ask for fewer days, or take the CSV.</p>}
        </div>
      )}
    </section>
  )
}
