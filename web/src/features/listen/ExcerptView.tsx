import { type RefObject, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { WideRibbon } from '../../ribbon/WideRibbon'
import { longDay } from '../../ui/days'
import { Problem } from '../../ui/Problem'
import { ResultMark, resultWords } from '../../ui/ResultMark'
import { SoundPlayer } from '../../ui/SoundPlayer'
import { Answers } from './Answers'
import { CommentBox } from './CommentBox'
import type { Excerpt } from './queries'
import { useExcerptSound } from './useExcerptSound'
import type { Session } from './useListening'
import { VoiceNote } from './VoiceNote'

/** The session is the whole listening; the excerpt is the one it stands at. */
type Props = { excerpt: Excerpt; session: Session; phrases: Schemas['PhraseView'][] }

/** ExcerptView is one excerpt: who, why, the drawing with the part that is played, and every answer to it. */
export function ExcerptView({ excerpt: e, session, phrases }: Props) {
  const audio = useRef<HTMLAudioElement>(null)
  const sound = useExcerptSound(audio, e)
  // Writing and speaking take the place of the keys, which would be typed otherwise.
  const [saying, setSaying] = useState<'words' | 'voice'>()
  const stop = () => setSaying(undefined)
  return (
    <article aria-label={`${e.name}, ${e.title}`}>
      <header className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 tabIndex={-1} className="text-xl">
          {e.name}
        </h2>
        <p className="text-sm text-soft">
          {e.instrument} · {longDay(e.day)} ·{' '}
          <Link className="underline" to={`/take/${e.take}`}>
            the whole take
          </Link>
        </p>
      </header>
      <p className="font-serif">{e.title}</p>
      <ul aria-label="Why" className="mt-2 border-l-4 border-warm pl-3">
        {e.why.map((w) => (
          <li key={w.reason}>
            {/* The weight is shown: a director may see why this one came before another. */}
            {w.text} <span className="text-xs text-soft">(weight {w.weight})</span>
          </li>
        ))}
      </ul>
      {/* The drawing is of the whole take, so that the excerpt is seen where it stands. */}
      <Drawing excerpt={e} at={sound.at} />
      {/* Fetched at once: the next excerpt has to sound when its turn comes. */}
      {/* biome-ignore lint/a11y/useMediaCaption: a long tone has no words; the ribbon's text says what sounds */}
      <audio ref={audio} src={`/api/takes/${e.take}/audio.wav`} preload="auto" />
      <p className="mt-3 flex flex-wrap items-center gap-x-3 font-serif text-lg" data-word={e.word ?? e.verdict.result}>
        <ResultMark result={e.word ?? e.verdict.result} overruled={Boolean(e.word)} withWord size={22} />
        <span className="font-sans text-base">{e.verdict.sentence}</span>
      </p>
      {/* Where the director differs from the ear, both stand: the measurement is not rewritten. */}
      {e.word && <p className="text-sm text-soft">Measured: {resultWords[e.verdict.result]}.</p>}
      <Comments comments={e.comments} />
      {session.problem !== null && session.problem !== undefined && <Problem error={session.problem} />}
      <Answers
        session={session}
        sound={sound}
        onWrite={() => setSaying('words')}
        onSpeak={() => {
          sound.stop() // or it would be heard in the note
          setSaying('voice')
        }}
        quiet={saying !== undefined}
      />
      {saying === 'voice' && (
        <VoiceNote
          take={e.take}
          onClose={stop}
          onKept={(id) => {
            // The note is kept already, by the route that takes sound; the session only learns that it
            // can be undone.
            session.remember({ id, take: e.take, says: 'the voice note' })
            stop()
          }}
        />
      )}
      {saying === 'words' && (
        <CommentBox
          phrases={phrases}
          at={() => audioTime(audio)}
          onSend={(words, at, phrase) => {
            session.act({ kind: 'comment', words, phrase, ...(at !== undefined && { at_s: at }) }, 'the comment')
            stop()
          }}
          onClose={stop}
        />
      )}
    </article>
  )
}

/** audioTime is where the sound stands, in seconds of the take; 0 before there is any. */
function audioTime(audio: RefObject<HTMLAudioElement | null>): number {
  return audio.current?.currentTime ?? 0
}

/**
 * Pixels of the ribbon: a hand high, so that the answers below stay in view without
 * scrolling.
 */
const height = 150

/** Drawing is the whole take's ribbon with the excerpt marked on it. */
function Drawing({ excerpt: e, at }: { excerpt: Excerpt; at: number }) {
  // The ribbon counts from the score's first beat, the sound from the start of the
  // recording, with its clicks.
  const start = e.score_start_s
  return (
    <div className="mt-3 border-y border-rule bg-sheet py-2">
      <WideRibbon ribbon={e.ribbon} height={height}>
        {(x) => (
          <>
            <path
              d={`M${x(e.from_s - start)} ${height - 3}H${x(e.to_s - start)}`}
              stroke="var(--warm)"
              strokeWidth="4"
              data-testid="span"
            />
            {at > 0 && <path d={`M${x(at - start)} 0V${height}`} stroke="var(--warm)" strokeWidth="1.5" />}
          </>
        )}
      </WideRibbon>
      <p className="px-3 pt-1 text-xs text-soft">
        Played: {(e.to_s - e.from_s).toFixed(1)} s, {e.at}.{!e.has_sound && ' The recording is no longer kept.'}
      </p>
    </div>
  )
}

/** Comments is what was said of the take so far, by anybody. */
function Comments({ comments }: { comments: Schemas['CommentView'][] }) {
  if (comments.length === 0) return null
  return (
    <ul aria-label="Said" className="mt-3 space-y-1">
      {comments.map((c) => (
        <li key={c.id} className="border-l-2 border-warm pl-3 text-sm">
          <span className="font-serif text-base">{c.body}</span>{' '}
          <span className="text-soft">
            {c.by}
            {c.at_s !== undefined && `, at ${c.at_s.toFixed(1)} s`}
          </span>
          {c.kind === 'voice' && (
            <SoundPlayer src={`/api/takes/${c.take_id}/voice/${c.id}.wav`} label="Voice note" preload="none" />
          )}
        </li>
      ))}
    </ul>
  )
}
