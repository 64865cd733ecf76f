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
      <p
        key={now.beat}
        className={`flex size-44 items-center justify-center rounded-full border-4 font-serif text-[5rem] leading-none tabular-nums ${
          now.playing ? 'border-warm bg-warm text-on-warm' : 'border-edge'
        } animate-[pulse-beat_0.4s_ease-out]`}
      >
        {now.beat}
      </p>
      <LiveRibbon recording={recording} step={step} />
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
  const cue = t.cues.find((c) => at < c.to_s) ?? t.cues.at(-1)
  const click = t.clicks.findLast((c) => c.at_s <= at)
  return {
    text: cue?.text ?? '',
    playing: ['play', 'buzz', 'sing', 'out'].includes(cue?.phase ?? ''),
    beat: at < 0 ? '·' : String(click?.beat ?? 1),
  }
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
