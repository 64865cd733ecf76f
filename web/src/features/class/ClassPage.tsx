import { useQuery } from '@tanstack/react-query'
import { Tabs } from 'radix-ui'
import { useParams, useSearchParams } from 'react-router'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { Passes } from '../passes'
import { ClassCare } from './ClassCare'
import { ClassConsents } from './ClassConsents'
import { ClassHead } from './ClassHead'
import { chapters } from './chapters'
import { Directors } from './Directors'
import { Excused } from './Excused'
import { FirstSteps } from './FirstSteps'
import { setUpQuery, useOpenAgain } from './queries'
import { Remedies } from './Remedies'
import { Roster } from './Roster'
import { Settings } from './Settings'
import { TipBook } from './TipBook'
import { Years } from './Years'

/** ClassPage sets a class up: who is in it, and what it follows. */
export function ClassPage() {
  const { classId = '' } = useParams()
  const { data, error } = useQuery(setUpQuery(classId))
  const again = useOpenAgain(classId)
  const [search, setSearch] = useSearchParams()
  const chapter = search.get('chapter') ?? 'players'
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening the class" />
  return (
    <>
      <ClassHead
        classId={classId}
        name={data.class.name}
        school={`${data.class.school} · class code ${data.class.code}`}
        at="class"
      />
      {data.archived && (
        <p className="mb-3 border-l-4 border-nearly pl-3">
          This class is archived. Nobody signs in to it any more.{' '}
          <Button disabled={again.isPending} onClick={() => again.mutate(undefined)}>
            Take it out of the archive
          </Button>
        </p>
      )}
      <FirstSteps classId={classId} setUp={data} />
      <Tabs.Root value={chapter} onValueChange={(key) => setSearch({ chapter: key })}>
        <Tabs.List aria-label="Set-up" className="flex flex-wrap gap-1 border-y border-ink py-2">
          {chapters.map((c) => (
            <Tabs.Trigger
              key={c.key}
              value={c.key}
              className="min-h-10 rounded-md border border-transparent px-4 text-sm aria-selected:border-ink aria-selected:bg-sheet"
            >
              {c.label}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value={chapter} className="mt-5">
          {chapter === 'players' && <Roster classId={classId} setUp={data} />}
          {chapter === 'people' && (
            <>
              <Directors classId={classId} setUp={data} />
              <Passes
                classId={classId}
                today={data.today}
                players={data.players.map((p) => ({ id: p.id, name: `${p.first} ${p.last}` }))}
              />
            </>
          )}
          {chapter === 'consent' && <ClassConsents classId={classId} />}
          {chapter === 'conventions' && <Settings key={data.class.id} classId={classId} setUp={data} />}
          {chapter === 'tips' && <TipBook classId={classId} setUp={data} />}
          {chapter === 'next-steps' && <Remedies classId={classId} setUp={data} />}
          {chapter === 'care' && <ClassCare classId={classId} />}
          {chapter === 'excused' && <Excused classId={classId} setUp={data} />}
          {chapter === 'years' && <Years classId={classId} setUp={data} />}
        </Tabs.Content>
      </Tabs.Root>
    </>
  )
}
