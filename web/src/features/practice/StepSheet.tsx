import { lazy, Suspense, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { targetsOf } from '../../api/score'
import { Button } from '../../ui/Button'
import type { PracticeStep } from './queries'

/** Notation is large and comes late; the words are there before it. */
const Staff = lazy(() => import('./Staff'))

/** StepSheet is what to play: notes on the staff, fingering, beats, and how it sounds. */
export function StepSheet({ step }: { step: PracticeStep }) {
  const { score } = step
  const targets = targetsOf(score)
  return (
    <section aria-label="Your step">
      <h1 className="mt-1">
        {targets.map((t) => t.written_name).join(', then ')}: {targets[0]?.beats} beats each
      </h1>
      <p className="text-soft">
        {step.why} Tempo {score.tempo_bpm}.
      </p>
      <ul className="mt-4 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {targets.map((t) => (
          <TargetCard key={t.start_beat} target={t} score={score} />
        ))}
      </ul>
      {score.notices.map((n) => (
        <p key={n} className="mt-2 text-sm text-soft">
          {n}
        </p>
      ))}
      <p className="mt-4 flex flex-wrap items-center gap-3">
        <Hear />
      </p>
      <ul className="mt-4 space-y-1 border-l-4 border-nearly pl-3 text-sm">
        {score.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </section>
  )
}

function TargetCard({ target, score }: { target: Schemas['Segment']; score: Schemas['Score'] }) {
  return (
    <li className="rounded-md border border-rule bg-sheet p-2 text-center">
      <div className="h-32">
        <Suspense>
          {target.written && <Staff clef={score.clef} keyFifths={score.key_fifths} note={target.written} />}
        </Suspense>
      </div>
      <p className="font-serif text-lg">{target.written_name}</p>
      <p className="text-sm">{target.fingering?.text ?? 'see your fingering chart'}</p>
      <p className="text-xs text-soft">
        {target.fingering?.alternates?.length ? `or ${target.fingering.alternates.join(', ')} · ` : ''}
        sounds {target.concert}
        {target.hard && ' · a hard note: trying counts'}
      </p>
    </li>
  )
}

function Hear() {
  const audio = useRef<HTMLAudioElement>(null)
  const [playing, setPlaying] = useState(false)
  function toggle() {
    const el = audio.current
    if (!el) return
    if (playing) {
      el.pause()
      return
    }
    el.currentTime = 0
    void el.play()
  }
  return (
    <>
      <Button onClick={toggle}>{playing ? 'Stop the sound' : 'Hear how it sounds'}</Button>
      {/* biome-ignore lint/a11y/useMediaCaption: tones without words */}
      <audio
        ref={audio}
        preload="none"
        src="/api/practice/reference.wav"
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        onEnded={() => setPlaying(false)}
      />
    </>
  )
}
