import { lazy, type ReactNode, Suspense } from 'react'
import type { Schemas } from '../../api/client'
import { targetsOf } from '../../api/score'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { Course } from './Course'
import { Hear } from './Hear'
import { Loudness } from './Loudness'
import type { ShownStep } from './overlay'
import { ReadAloud } from './ReadAloud'

/** Notation is large and comes late; the words are there before it. */
const Staff = lazy(() => import('../../notation/Staff'))

/** beside stands next to the notes on a wide screen and below them on a phone. */
type Props = { step: ShownStep; beside?: ReactNode; children?: ReactNode }

/** StepSheet is what to play: the course of it, notes on the staff, fingering, and how it sounds; beside lies next to the way to hear it. */
export function StepSheet({ step, beside, children }: Props) {
  const { score } = step
  const targets = targetsOf(score)
  return (
    <section aria-label="Your step">
      <h1 className="mt-3">{heading(step, targets)}</h1>
      <p className="text-soft">
        {step.why} Tempo {score.tempo_bpm}
        {step.times > 1 && `, ${step.times} times`}.
      </p>
      <Course score={score} />
      <Loudness score={score} />
      {children}
      {step.best_s !== undefined && (
        <p className="mt-2">
          Your longest so far: <strong className="font-serif text-lg">{step.best_s.toFixed(1)} s</strong>
        </p>
      )}
      <ul className="mt-4 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {onceEach(targets).map((t) => (
          <TargetCard key={t.start_beat} target={t} score={score} />
        ))}
      </ul>
      {score.notices.map((n) => (
        <p key={n} className="mt-2 text-sm text-soft">
          {n}
        </p>
      ))}
      <div className="mt-4 flex flex-wrap items-center gap-x-6 gap-y-3">
        {targets.length > 0 && <Hear step={step} />}
        {beside}
      </div>
      <Cautions texts={score.cautions} />
      <ReadAloud texts={[heading(step, targets), step.why, ...score.notices, ...score.cautions]} />
    </section>
  )
}

/** Notes that are drawn as cards; more are engraved as a line. */
const few = 2

/** heading names a step of one or two held notes by its notes, any other by its kind. */
function heading(step: ShownStep, targets: Schemas['Segment'][]): string {
  const held = targets.every((t) => t.phase === 'play' && !t.glide_to_midi && t.beats === targets[0]?.beats)
  if (step.called || targets.length === 0 || targets.length > few || !held || step.ladder) return step.name
  return `${targets.map((t) => t.written_name).join(', then ')}: ${targets[0]?.beats} beats each`
}

/** onceEach keeps the first of each written note. */
function onceEach(targets: Schemas['Segment'][]): Schemas['Segment'][] {
  return targets.filter((t, n) => targets.findIndex((u) => u.written_name === t.written_name) === n)
}

/** Cautions stand on the page, never behind a button. */
export function Cautions({ texts }: { texts: string[] }) {
  if (texts.length === 0) return null
  return (
    <ul className="mt-4 space-y-1 border-l-4 border-nearly pl-3 text-sm" aria-label="Take care">
      {texts.map((c) => (
        <li key={c}>{c}</li>
      ))}
    </ul>
  )
}

/** TargetCard is one note: on the staff, by name, and how it is fingered. */
function TargetCard({ target, score }: { target: Schemas['Segment']; score: Schemas['Score'] }) {
  return (
    <li className="rounded-md border border-rule bg-sheet p-2 text-center">
      <div className="h-32">
        <Suspense>
          {target.written && (
            <Staff
              clef={score.clef}
              keyFifths={score.key_fifths}
              note={target.written}
              accidental={target.accidental}
            />
          )}
        </Suspense>
      </div>
      <p className="font-serif text-lg">{target.written_name}</p>
      {target.phase === 'play' && target.fingering && (
        <div className="mt-1 flex justify-center">
          <FingeringDiagram fingering={target.fingering} height={112} changes={target.changes ?? []} />
        </div>
      )}
      {target.phase === 'play' && <p className="text-sm">{target.fingering?.text ?? 'see your fingering chart'}</p>}
      {target.phase === 'buzz' && <p className="text-sm">with the lips</p>}
      <p className="text-xs text-soft">
        {target.fingering?.alternates?.length ? `or ${target.fingering.alternates.join(', ')}` : ''}
        {target.hard && ' A hard note: trying counts.'}
      </p>
    </li>
  )
}
