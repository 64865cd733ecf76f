import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { type Chart, chart, perform, work } from '../../ear/ask'
import { playerSource } from '../../ear/microphone'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { type Practice, practiceQuery } from '../practice/queries'
import { Drone } from './Drone'
import { FoundNote, SpokenNote } from './FoundNote'
import { ListenButton } from './ListenButton'
import { Needle } from './Needle'
import { useFreePlay } from './useFreePlay'

/** FreePlayPage is a player's own time: play anything, and see which note it is. It needs no network once the page was open. */
export function FreePlayPage() {
  const { data, error } = useQuery(practiceQuery)
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Opening your instrument" />
  return <Tuner practice={data} />
}

function Tuner({ practice }: { practice: Practice }) {
  const { instrument, variant, conventions } = practice.setting
  const of = useMemo(() => ({ instrument, variant: variant ?? '', conventions }), [instrument, variant, conventions])
  const { data: book, error } = useQuery({
    queryKey: ['chart', of],
    queryFn: () => chart(of),
    staleTime: Number.POSITIVE_INFINITY,
  })
  return (
    <div className="mx-auto max-w-2xl">
      <p>
        <Link to="/practice" className="underline">
          Back to your practice
        </Link>
      </p>
      <h1 className="mt-2">Which note is that?</h1>
      <p>Play any note. You see its name. Nothing is recorded.</p>
      {error && <Problem error={error} />}
      {!book && !error && <Waiting what="Getting the ear ready" />}
      {book && <Listening practice={practice} of={of} book={book} />}
    </div>
  )
}

type Props = { practice: Practice; of: Parameters<typeof chart>[0]; book: Chart }

/** Listening is the page with its book: the note that sounds, the needle, and a drone. */
function Listening({ practice, of, book }: Props) {
  const range = useMemo(() => ({ lowest: book.ear.lowest_hz, highest: book.ear.highest_hz }), [book])
  const { playing, start, stop } = useFreePlay(of, range)
  const [needle, setNeedle] = useState(!book.ears_first)
  const { found, sounding } = playing
  return (
    <>
      <div className="mt-4 flex flex-wrap gap-3">
        <ListenButton playing={playing} onStart={() => start()} onStop={stop} />
        {practice.stand_ins.length > 0 && playing.at === 'idle' && (
          <Button onClick={() => start(() => simulated(practice))}>Let a simulated player play</Button>
        )}
      </div>
      <SpokenNote
        says={found ? [found.called, found.place, needle ? found.tune : ''].filter(Boolean).join(', ') : ''}
        sounding={sounding}
      />
      <div className="mt-4 min-h-44">
        {playing.at === 'listening' && !found && <p className="pt-12 text-lg text-soft">Play a note and hold it.</p>}
        {found && (
          <>
            <FoundNote found={found} clef={book.clef as 'treble' | 'bass'} sounding={sounding} tune={needle} />
            {needle && (
              <div className="mt-3">
                <Needle cents={found.cents} tune={found.tune} sounding={sounding} />
              </div>
            )}
          </>
        )}
      </div>
      <p className="mt-3">
        <Button onClick={() => setNeedle(!needle)}>{needle ? 'Hide the needle' : 'Show the needle'}</Button>
        {book.ears_first && !needle && <span className="ml-3 text-sm text-soft">Listen first. Then look.</span>}
      </p>
      <Drone drones={book.drones} />
    </>
  )
}

const simulatedRate = 48_000

/** simulated is a player who walks over the first five notes, in the microphone's place. */
function simulated(practice: Practice) {
  const walk = work(practice.setting, { kind: 'five-note-walk', parameters: {} }, 0)
  return playerSource(
    walk.then(({ score }) => perform(score, 'steady', 1, simulatedRate)),
    'simulated',
  )
}
