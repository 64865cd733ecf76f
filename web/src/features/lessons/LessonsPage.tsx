import { useQuery } from '@tanstack/react-query'
import { Tabs } from 'radix-ui'
import { Link } from 'react-router'
import { work } from '../../ear/ask'
import { LessonCards } from '../../ui/LessonCards'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { type Practice, practiceQuery } from '../practice/queries'
import { ReadAloud } from '../practice/ReadAloud'
import { Cautions } from '../practice/StepSheet'

/** The lessons that are done and not played, in the order of a day with the instrument. */
const lessons = [
  { key: 'together', label: 'Put it together', kind: 'assembly', parameters: { way: 'together' } },
  { key: 'set-up', label: 'Sit and hold', kind: 'set-up', parameters: {} },
  { key: 'daily', label: 'After playing', kind: 'care', parameters: { when: 'daily' } },
  { key: 'away', label: 'Put it away', kind: 'assembly', parameters: { way: 'away' } },
  { key: 'weekly', label: 'Every week', kind: 'care', parameters: { when: 'weekly' } },
  { key: 'monthly', label: 'Every month', kind: 'care', parameters: { when: 'monthly' } },
  { key: 'termly', label: 'Every term', kind: 'care', parameters: { when: 'termly' } },
]

/** LessonsPage is how to put an instrument together, hold it, and look after it, card by card; it needs no network. */
export function LessonsPage() {
  const { data, error } = useQuery(practiceQuery)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening your lessons" />
  return (
    <div className="mx-auto max-w-3xl">
      <p>
        <Link to="/practice" className="underline">
          Back to your practice
        </Link>
      </p>
      <h1 className="mt-2">Lessons</h1>
      <p className="text-soft">{data.instrument}</p>
      <Tabs.Root defaultValue="together" className="mt-3">
        <Tabs.List aria-label="Lessons" className="flex flex-wrap gap-1 border-y border-rule py-2">
          {lessons.map((l) => (
            <Tabs.Trigger
              key={l.key}
              value={l.key}
              className="min-h-11 rounded-md border border-transparent px-3 data-[state=active]:border-warm data-[state=active]:bg-warm-wash data-[state=active]:font-semibold"
            >
              {l.label}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {lessons.map((l) => (
          <Tabs.Content key={l.key} value={l.key}>
            <Lesson practice={data} lesson={l} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </div>
  )
}

function Lesson({ practice, lesson }: { practice: Practice; lesson: (typeof lessons)[number] }) {
  const { data, error } = useQuery({
    queryKey: ['lesson', practice.setting, lesson.key],
    queryFn: () => work(practice.setting, { kind: lesson.kind, parameters: lesson.parameters }, 0),
    staleTime: Number.POSITIVE_INFINITY,
  })
  // A drum has no parts to put together.
  if (error) return <p className="mt-4">There is nothing like this for your instrument.</p>
  if (!data) return <Waiting what="Opening the cards" />
  const { items, pictures, cautions } = data.score
  return (
    <>
      <LessonCards items={items} pictures={pictures} />
      <Cautions texts={cautions} />
      <ReadAloud texts={[...items, ...cautions]} />
    </>
  )
}
