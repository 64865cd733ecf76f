import { Dialog } from 'radix-ui'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import type { Recording } from '../../ear/recorder'
import { Button } from '../../ui/Button'
import { LevelBar } from '../../ui/LevelBar'
import { Guide } from './Guide'
import { LiveRibbon } from './LiveRibbon'
import type { ShownStep } from './overlay'
import { Cautions } from './StepSheet'
import { hurts } from './TellDirector'

/** The step in seconds from its first click, as the core laid it out. */
type Timeline = Schemas['Timeline']

/**
 * onHurt throws the take away, and asks what is wrong. spoken has a screen reader say each
 * cue: only in headphones, for the microphone would hear it.
 */
type Props = { recording: Recording; step: ShownStep; spoken?: boolean; onHurt: () => void }

/** CountIn shows what to do now while a take is recorded: the words, the beat, the breath, the fingers, the level. */
export function CountIn({ recording, step, spoken = false, onHurt }: Props) {
  // The recording's own clock, so that what is shown is what is being recorded.
  const { at, level } = useLive(recording)
  const now = nowIn(step.timeline, at)
  return (
    <RecordingSheet step={step} onStop={recording.stop}>
      <p className="text-2xl font-serif" aria-live={spoken ? 'assertive' : 'off'}>
        {now.text}
      </p>
      <div className="flex items-center justify-center gap-8">
        <div className="relative flex size-44 items-center justify-center">
          <Breath phase={now.phase} share={now.share} />
          <p
            // A new beat is a new element, so that the pulse runs again.
            key={now.beat}
            className={`flex size-32 items-center justify-center rounded-full border-4 font-serif text-[4rem] leading-none tabular-nums ${
              now.playing ? 'border-warm bg-warm text-on-warm' : 'border-edge'
            } animate-[pulse-beat_0.4s_ease-out]`}
          >
            {now.beat}
          </p>
        </div>
        <Guide step={step} recording={recording} at={at} index={now.index} />
      </div>
      <p className="text-soft">
        of {now.beats}
        {now.next && ` · then ${now.next.charAt(0).toLowerCase()}${now.next.slice(1)}`}
      </p>
      {/* Some steps are played by ear; the line would be looked at in place of listening. */}
      {step.score.ears_first ? (
        <p className="h-28 max-w-lg content-center text-soft">Ears first: you see your note when the take is over.</p>
      ) : (
        <LiveRibbon recording={recording} step={step} />
      )}
      {/* Last, for it says only that something is heard. */}
      <LevelBar level={level} />
      <p className="text-sm text-soft tabular-nums">{Math.max(0, Math.ceil(step.timeline.total_s - at))} s to go</p>
      <p className="flex flex-wrap justify-center gap-3">
        <Button className="min-h-11" onClick={recording.stop}>
          Stop and throw away
        </Button>
        <Button className="min-h-11" onClick={onHurt}>
          {hurts}
        </Button>
      </p>
      <div className="max-w-lg text-left">
        <Cautions texts={step.score.cautions} />
      </div>
    </RecordingSheet>
  )
}

/** RecordingSheet covers the page while a take is recorded: nothing under it can be reached, and Escape throws the take away. */
function RecordingSheet({ step, onStop, children }: { step: ShownStep; onStop: () => void; children: ReactNode }) {
  const sheet = useRef<HTMLDivElement>(null)
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Content
          ref={sheet}
          data-recording
          onEscapeKeyDown={onStop}
          onPointerDownOutside={(e) => e.preventDefault()}
          // On the sheet itself: Space on a button would throw the take away.
          onOpenAutoFocus={(e) => {
            e.preventDefault()
            sheet.current?.focus()
          }}
          tabIndex={-1}
          className="fixed inset-0 z-20 flex flex-col items-center justify-center gap-4 overflow-y-auto bg-paper p-6 text-center outline-none"
        >
          <Dialog.Title className="sr-only">Recording: {step.name}</Dialog.Title>
          {/* Read once when it opens, in the count-in; from then on it is quiet. */}
          <Dialog.Description className="sr-only">{step.task?.sentence ?? step.name}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
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

/**
 * nowIn finds what the score asks for at a moment: the cue, how far into it, and what
 * comes next. Before the first click the beat is a dot: nothing counts yet.
 */
function nowIn(t: Timeline, at: number) {
  const found = t.cues.findIndex((c) => at < c.to_s)
  const index = found < 0 ? t.cues.length - 1 : found
  const cue = t.cues[index]
  const click = t.clicks.findLast((c) => c.at_s <= at)
  const length = cue ? cue.to_s - cue.from_s : 1
  return {
    index,
    text: cue?.text ?? '',
    phase: cue?.phase ?? 'rest',
    beats: cue?.beats ?? 0,
    share: cue ? Math.min(1, Math.max(0, (at - cue.from_s) / length)) : 0,
    next: t.cues[index + 1]?.text ?? '',
    playing: cue?.active ?? false,
    beat: at < 0 ? '·' : String(click?.beat ?? 1),
  }
}

/** Breath is the air as a ring: it fills while one breathes in, stays while one holds, empties while one blows or plays. */
function Breath({ phase, share }: { phase: string; share: number }) {
  const full =
    // One breath for playing, buzzing and singing alike: the ring says how much of it is left.
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
