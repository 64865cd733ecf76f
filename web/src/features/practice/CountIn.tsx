import { useEffect, useState } from 'react'
import type { Schemas } from '../../api/client'
import type { Recording } from '../../ear/recorder'
import { Button } from '../../ui/Button'
import { LiveRibbon } from './LiveRibbon'
import type { PracticeStep } from './queries'

type Timeline = Schemas['Timeline']

/** CountIn shows what to do now while a take is recorded: the words, the beat, the level. */
export function CountIn({ recording, step }: { recording: Recording; step: PracticeStep }) {
  const { at, level } = useLive(recording)
  const now = nowIn(step.timeline, at)
  return (
    <section
      aria-label="Recording"
      className="fixed inset-0 z-10 flex flex-col items-center justify-center gap-6 bg-paper p-6 text-center"
    >
      <p className="text-2xl font-serif" aria-live="assertive">
        {now.text}
      </p>
      <div className="relative flex size-52 items-center justify-center">
        <Breath phase={now.phase} share={now.share} />
        <p
          key={now.beat}
          className={`flex size-40 items-center justify-center rounded-full border-4 font-serif text-[5rem] leading-none tabular-nums ${
            now.playing ? 'border-warm bg-warm text-on-warm' : 'border-edge'
          } animate-[pulse-beat_0.4s_ease-out]`}
        >
          {now.beat}
        </p>
      </div>
      <p className="text-soft">
        of {now.beats}
        {now.next && ` · then ${now.next.toLowerCase()}`}
      </p>
      {step.score.ears_first ? (
        <p className="h-28 max-w-lg content-center text-soft">Ears first: you see your note when the take is over.</p>
      ) : (
        <LiveRibbon recording={recording} step={step} />
      )}
      <LevelBar level={level} />
      <p className="text-sm text-soft tabular-nums">{Math.max(0, Math.ceil(step.timeline.total_s - at))} s to go</p>
      <Button onClick={recording.stop}>Stop and throw away</Button>
    </section>
  )
}

/** useLive reads the recording's clock and level once a frame. */
function useLive(recording: Recording): { at: number; level: number } {
  const [live, setLive] = useState({ at: 0, level: 0 })
  useEffect(() => {
    let frame = requestAnimationFrame(function look() {
      setLive({ at: recording.position(), level: recording.level() })
      frame = requestAnimationFrame(look)
    })
    return () => cancelAnimationFrame(frame)
  }, [recording])
  return live
}

function nowIn(t: Timeline, at: number) {
  const index = t.cues.findIndex((c) => at < c.to_s)
  const cue = index < 0 ? t.cues.at(-1) : t.cues[index]
  const click = t.clicks.findLast((c) => c.at_s <= at)
  const length = cue ? cue.to_s - cue.from_s : 1
  return {
    text: cue?.text ?? '',
    phase: cue?.phase ?? 'rest',
    beats: cue?.beats ?? 0,
    share: cue ? Math.min(1, Math.max(0, (at - cue.from_s) / length)) : 0,
    next: index >= 0 ? (t.cues[index + 1]?.text ?? '') : '',
    playing: ['play', 'buzz', 'sing', 'out'].includes(cue?.phase ?? ''),
    beat: at < 0 ? '·' : String(click?.beat ?? 1),
  }
}

/** Breath is the air as a ring: it fills while one breathes in, stays while one holds, empties while one blows or plays. */
function Breath({ phase, share }: { phase: string; share: number }) {
  const full =
    { breathe: share, hold: 1, out: 1 - share, play: 1 - share, buzz: 1 - share, sing: 1 - share }[phase] ?? 0
  const around = 2 * Math.PI * 47
  return (
    <svg viewBox="0 0 100 100" className="absolute inset-0 -rotate-90" aria-hidden>
      <circle cx="50" cy="50" r="47" fill="none" stroke="var(--band)" strokeWidth="5" />
      <circle
        cx="50"
        cy="50"
        r="47"
        fill="none"
        stroke="var(--cant-tell)"
        strokeWidth="5"
        strokeDasharray={`${full * around} ${around}`}
      />
    </svg>
  )
}

const steps = 24

/** LevelBar shows the microphone's level in steps of 2 dB; full is too loud. */
function LevelBar({ level }: { level: number }) {
  const db = 20 * Math.log10(Math.max(level, 1e-6))
  const lit = Math.max(0, Math.min(steps, Math.round((db + 2 * steps) / 2)))
  return (
    // A native meter cannot be drawn in steps.
    // biome-ignore lint/a11y/useSemanticElements: see above
    <div
      role="meter"
      aria-label="Microphone level"
      aria-valuemin={0}
      aria-valuemax={steps}
      aria-valuenow={lit}
      className="flex h-6 items-end gap-1"
    >
      {Array.from({ length: steps }, (_, n) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: the bars are their places
          key={n}
          className={`w-2 ${n < lit ? (n > steps - 2 ? 'bg-not-yet' : 'bg-ink') : 'bg-rule'}`}
          style={{ height: `${30 + (70 * n) / steps}%` }}
        />
      ))}
    </div>
  )
}
