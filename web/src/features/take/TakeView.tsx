import { useQuery } from '@tanstack/react-query'
import { useRef } from 'react'
import { Link, useParams } from 'react-router'
import { RibbonLegend } from '../../ribbon/RibbonLegend'
import { buttonClass } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { useRights } from '../signin'
import { Beside } from './Beside'
import { Comments } from './Comments'
import { EventList } from './EventList'
import { Measures } from './Measures'
import { othersQuery, type TakeDetail, takeQuery } from './queries'
import { TakeRibbon } from './TakeRibbon'
import { TakeVerdict } from './TakeVerdict'
import { Tone } from './Tone'

/** TakeView is one take, as its director listens to it. */
export function TakeView() {
  const { takeId = '' } = useParams()
  const { data: take, error } = useQuery(takeQuery(takeId))
  if (error) return <Problem error={error} />
  if (!take) return <Waiting what="Opening the take" />
  return (
    <article>
      <TakeHead take={take} />
      {take.state === 'waiting' && <Waiting what="This take is being listened to" />}
      {take.state === 'failed' && <Problem error={new Error(take.failure)} />}
      {take.state === 'done' && <Heard take={take} />}
    </article>
  )
}

/** Where a take's sound came from. A simulated one is always called so. */
const sources = { microphone: 'recorded here', file: 'handed in as a file', simulated: 'a simulated player' }

/**
 * TakeHead says whose take this is, of what and when, and leads back to the board of
 * that day.
 */
function TakeHead({ take }: { take: TakeDetail }) {
  return (
    <header className="flex flex-wrap items-end justify-between gap-4 border-b border-rule pb-4">
      <div>
        <Link to={`/class/${take.class_id}?day=${take.day}`} className="text-sm text-soft underline">
          {take.class}
        </Link>
        <h1 className="text-2xl">{take.player}</h1>
        <p className="text-soft">
          {take.instrument} ·{' '}
          {new Date(take.received_at).toLocaleString(undefined, { dateStyle: 'full', timeStyle: 'short' })} ·{' '}
          {sources[take.source]}
          {take.trial && ', tried out: it counts for nothing'}
        </p>
        {take.private && <p className="text-not-yet">Not to be played to others: the home did not agree to it.</p>}
        <p className="font-serif">{take.score.title}</p>
        <Around take={take} />
      </div>
      <p className="no-print flex flex-wrap gap-2 text-sm">
        <a className={buttonClass()} href={`/api/takes/${take.id}/audio.wav`} download={`${take.id}.wav`}>
          WAV
        </a>
        <a className={buttonClass()} href={`/api/takes/${take.id}/audio.flac`}>
          FLAC
        </a>
        <a className={buttonClass()} href={`/api/takes/${take.id}/contour.csv`}>
          Contour CSV
        </a>
        <a className={buttonClass()} href={`/api/takes/${take.id}/measures.json`}>
          Measures JSON
        </a>
      </p>
    </header>
  )
}

/** Around leads on: the same player's takes of this step, and the players before and after on the board. */
function Around({ take }: { take: TakeDetail }) {
  const { directs } = useRights()
  const { data } = useQuery({ ...othersQuery(take.id), enabled: directs })
  if (!data) return null
  const own = take.player.split(' ')[0]
  const ways = [
    { to: data.player_before, says: `‹ ${data.player_before?.name}` },
    { to: data.previous, says: `${own}’s take before` },
    { to: data.next, says: `${own}’s next take` },
    { to: data.player_after, says: `${data.player_after?.name} ›` },
  ].filter((w) => w.to)
  if (ways.length === 0) return null
  return (
    <nav aria-label="Other takes" className="no-print mt-2 flex flex-wrap gap-2 text-sm">
      {ways.map((w) => (
        <Link key={w.says} to={`/take/${w.to?.id}`} className={buttonClass()}>
          {w.says}
        </Link>
      ))}
    </nav>
  )
}

/**
 * Heard is a take that was listened to: its ribbon, its sound, the word on it, and what
 * was said.
 */
function Heard({ take }: { take: TakeDetail }) {
  const audio = useRef<HTMLAudioElement>(null)
  const { directs } = useRights()
  const seek = (seconds: number) => {
    if (!audio.current) return
    audio.current.currentTime = Math.max(0, seconds)
    void audio.current.play()
  }
  return (
    <>
      <TakeVerdict take={take} directs={directs} />
      <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,1fr)]">
        <div>
          <TakeRibbon take={take} audio={audio} />
          {directs && <Beside take={take} />}
        </div>
        <EventList take={take} onSeek={seek} />
      </div>
      <div className="mt-8 grid gap-10 lg:grid-cols-[3fr_2fr]">
        <div className="space-y-8">
          <Measures take={take} />
          <Tone take={take} />
        </div>
        <div className="space-y-8">
          <Comments take={take} directs={directs} now={() => audio.current?.currentTime ?? 0} onSeek={seek} />
          <section>
            <h2>Reading the ribbon</h2>
            <div className="mt-2">
              <RibbonLegend />
            </div>
          </section>
        </div>
      </div>
    </>
  )
}
