import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { Link, useParams } from 'react-router'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { ClassHead } from '../class'
import { ExcerptView } from './ExcerptView'
import { Minutes } from './Minutes'
import { Queue } from './Queue'
import { listeningQuery } from './queries'
import { useListening } from './useListening'
import { Weights } from './Weights'

/** ListenPage is "I have five minutes": the excerpts that answer most, one after the other, by keys alone. */
export function ListenPage() {
  const { classId = '' } = useParams()
  const { data, error } = useQuery(listeningQuery(classId))
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Choosing what to hear" />
  return (
    <>
      <ClassHead classId={classId} name={data.class.name} at="listen" />
      <Session key={`${data.minutes} ${data.excerpts.map((e) => e.take).join()}`} classId={classId} />
    </>
  )
}

/**
 * useFocusOnNext puts the focus on the excerpt's name when the next one comes and the button
 * that was pressed is gone: the keyboard stays where it was.
 */
function useFocusOnNext(place: number) {
  const stage = useRef<HTMLDivElement>(null)
  const before = useRef(place)
  useEffect(() => {
    if (before.current === place) return
    before.current = place
    if (document.activeElement === document.body) stage.current?.querySelector<HTMLElement>('h2')?.focus()
  }, [place])
  return stage
}

/**
 * Session is a listening that has been chosen: what is to come on the left, the excerpt
 * and the answers beside it.
 */
function Session({ classId }: { classId: string }) {
  const session = useListening(classId)
  const { listening, place, excerpt } = session
  const stage = useFocusOnNext(place)
  return (
    <div className="border-t border-ink pt-4 lg:grid lg:grid-cols-[17rem_minmax(0,1fr)] lg:gap-8">
      <aside>
        <Minutes classId={classId} session={session} />
        <Queue excerpts={listening.excerpts} place={place} onGo={session.go} />
        <Weights classId={classId} listening={listening} />
      </aside>
      <div className="mt-6 min-w-0 lg:mt-0" ref={stage}>
        <p role="status" className="min-h-6 text-sm text-soft" data-testid="said">
          {session.said}
        </p>
        {listening.excerpts.length === 0 && (
          <p className="py-10 text-lg">
            Nobody needs an ear just now. Everything that was played has been listened to, or says nothing new.{' '}
            <Link className="underline" to={`/class/${classId}`}>
              See today’s board
            </Link>
          </p>
        )}
        {listening.excerpts.length > 0 && !excerpt && (
          <p className="py-10 text-lg" data-testid="all-heard">
            That was all for these minutes. {listening.left > 0 && `${listening.left} more takes have a reason. `}
            Choose more minutes to go on, or go back to the board.
          </p>
        )}
        {excerpt && <ExcerptView key={excerpt.take} excerpt={excerpt} session={session} phrases={listening.phrases} />}
      </div>
    </div>
  )
}
