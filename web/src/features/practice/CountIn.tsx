import { Dialog } from 'radix-ui'
import { type ReactNode, useRef } from 'react'
import type { Recording } from '../../ear/recorder'
import { Button } from '../../ui/Button'
import { LevelBar, levelSteps } from '../../ui/LevelBar'
import { cueAt, type Timeline, useCue } from './cue'
import { Guide } from './Guide'
import { LiveRibbon } from './LiveRibbon'
import type { ShownStep } from './overlay'
import { Cautions } from './StepSheet'
import { hurts } from './TellDirector'
import { useLive, useMoved } from './useLive'

/**
 * onHurt throws the take away, and asks what is wrong. spoken has a screen reader say each
 * cue: only in headphones, for the microphone would hear it.
 */
type Props = { recording: Recording; step: ShownStep; spoken?: boolean; onHurt: () => void }

/**
 * CountIn shows what to do now while a take is recorded: the words, the beat, the breath, the fingers, the level. Each part
 * is drawn again by itself: the sheet about them is not, at every beat.
 */
export function CountIn({ recording, step, spoken = false, onHurt }: Props) {
  const { timeline } = step
  return (
    <RecordingSheet step={step} onStop={recording.stop}>
      <Words recording={recording} timeline={timeline} spoken={spoken} />
      <div className="flex items-center justify-center gap-8">
        <div className="relative flex size-44 items-center justify-center">
          <Breath recording={recording} timeline={timeline} />
          <Beat recording={recording} timeline={timeline} />
        </div>
        <Guide step={step} recording={recording} />
      </div>
      <Next recording={recording} timeline={timeline} />
      {/* Some steps are played by ear; the line would be looked at in place of listening. */}
      {step.score.ears_first ? (
        <p className="h-28 max-w-lg content-center text-soft">Ears first: you see your note when the take is over.</p>
      ) : (
        <LiveRibbon recording={recording} step={step} />
      )}
      {/* Last, for it says only that something is heard. */}
      <Level recording={recording} />
      <ToGo recording={recording} total={step.timeline.total_s} />
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
          {/* The page's own heading while the sheet is all there is of it. */}
          <Dialog.Title asChild>
            <h1 className="sr-only">Recording: {step.name}</h1>
          </Dialog.Title>
          {/* Read once when it opens, in the count-in; from then on it is quiet. */}
          <Dialog.Description className="sr-only">{step.task?.sentence ?? step.name}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

/** Level is how loud the microphone hears. */
function Level({ recording }: { recording: Recording }) {
  const steps = useLive(recording, (r) => levelSteps(r.level()))
  return <LevelBar lit={steps} />
}

/** ToGo is how long it still takes. */
function ToGo({ recording, total }: { recording: Recording; total: number }) {
  const seconds = useLive(recording, (r) => Math.max(0, Math.ceil(total - r.position())))
  return <p className="text-sm text-soft tabular-nums">{seconds} s to go</p>
}

type Led = { recording: Recording; timeline: Timeline }

/** Words are what to do now. */
function Words({ recording, timeline, spoken }: Led & { spoken: boolean }) {
  const cue = timeline.cues[useCue(recording, timeline)]
  return (
    <p className="text-2xl font-serif" aria-live={spoken ? 'assertive' : 'off'}>
      {cue?.text}
    </p>
  )
}

/** Beat is the number to count. Before the first click it is a dot: nothing counts yet. */
function Beat({ recording, timeline }: Led) {
  const playing = timeline.cues[useCue(recording, timeline)]?.active
  const beat = useLive(recording, (r) => {
    const at = r.position()
    return at < 0 ? '·' : String(timeline.clicks.findLast((c) => c.at_s <= at)?.beat ?? 1)
  })
  return (
    <p
      // A new beat is a new element, so that the pulse runs again.
      key={beat}
      className={`flex size-32 items-center justify-center rounded-full border-4 font-serif text-[4rem] leading-none tabular-nums ${
        playing ? 'border-warm bg-warm text-on-warm' : 'border-edge'
      } animate-[pulse-beat_0.4s_ease-out]`}
    >
      {beat}
    </p>
  )
}

/** Next is how many beats there are, and what comes then. */
function Next({ recording, timeline }: Led) {
  const index = useCue(recording, timeline)
  const next = timeline.cues[index + 1]?.text
  return (
    <p className="text-soft">
      of {timeline.cues[index]?.beats ?? 0}
      {next && ` · then ${next.charAt(0).toLowerCase()}${next.slice(1)}`}
    </p>
  )
}

/** filled is how full of air one is, 0 to 1, as the cue asks for it. */
function filled(t: Timeline, at: number): number {
  const cue = t.cues[cueAt(t, at)]
  if (!cue) return 0
  const share = Math.min(1, Math.max(0, (at - cue.from_s) / (cue.to_s - cue.from_s)))
  // One breath for playing, buzzing and singing alike: the ring says how much of it is left.
  const left = 1 - share
  return { breathe: share, hold: 1, out: left, play: left, buzz: left, sing: left }[cue.phase as string] ?? 0
}

/** Breath is the air as a ring: it fills while one breathes in, stays while one holds, empties while one blows or plays. */
function Breath({ recording, timeline }: { recording: Recording; timeline: Timeline }) {
  const around = 2 * Math.PI * 47
  const ring = useMoved<SVGCircleElement>(recording, (circle, r) =>
    circle.setAttribute('stroke-dasharray', `${(filled(timeline, r.position()) * around).toFixed(1)} ${around}`),
  )
  return (
    <svg viewBox="0 0 100 100" className="absolute inset-0 -rotate-90" aria-hidden>
      <circle cx="50" cy="50" r="47" fill="none" stroke="var(--band)" strokeWidth="5" />
      <circle
        ref={ring}
        cx="50"
        cy="50"
        r="47"
        fill="none"
        stroke="var(--cant-tell)"
        strokeWidth="5"
        strokeDasharray={`0 ${around}`}
      />
    </svg>
  )
}
