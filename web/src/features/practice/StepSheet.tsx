import { lazy, type ReactNode, Suspense } from 'react'
import type { Schemas } from '../../api/client'
import { targetsOf } from '../../api/score'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { Course } from './Course'
import { Hear } from './Hear'
import { Loudness } from './Loudness'
import { Model } from './Model'
import type { ShownStep } from './overlay'
import { ReadAloud } from './ReadAloud'
import { TestLine } from './TestLine'

/** Notation is large and comes late; the words are there before it. */
const Music = lazy(() => import('../../notation/Music'))

/** beside stands next to the way to hear the step; children lie below its words. */
type Props = { step: ShownStep; beside?: ReactNode; children?: ReactNode }

/** StepSheet is the step before it is played: in one sentence, in music, by the fingers, and how it sounds. */
export function StepSheet({ step, beside, children }: Props) {
  const { score, task } = step
  const targets = targetsOf(score)
  return (
    <section aria-label="Your step">
      <h1 className="mt-3">{step.name}</h1>
      {/* What an older version of the page kept has no task in it. */}
      {task && <p className="mt-1 font-serif text-lg leading-snug">{task.sentence}</p>}
      {step.why && <p className="mt-1 text-soft">{step.why}</p>}
      {step.test && <TestLine test={step.test} />}
      <Cautions texts={score.cautions} />
      {children}
      {task && task.bars.length > 0 && (
        <figure className="mt-3 rounded-md border border-rule bg-sheet px-1 pt-1 pb-2">
          <div className="min-h-24">
            <Suspense>
              <Music score={score} bars={task.bars} says={`The music: ${spoken(task)}`} />
            </Suspense>
          </div>
          <figcaption className="px-2 text-sm text-soft">
            {[often(task.times), `${score.tempo_bpm} beats a minute`, taken(step.times)].filter(Boolean).join(' · ')}
          </figcaption>
        </figure>
      )}
      <Loudness score={score} />
      {task && <Course task={task} />}
      {step.best_s !== undefined && (
        <p className="mt-2">
          Your longest so far: <strong className="font-serif text-lg">{step.best_s.toFixed(1)} s</strong>
        </p>
      )}
      <Fingerings targets={targets} />
      {score.notices.map((n) => (
        <p key={n} className="mt-2 text-sm text-soft">
          {n}
        </p>
      ))}
      <div className="mt-4 flex flex-wrap items-center gap-x-6 gap-y-3">
        {targets.length > 0 && <Hear step={step} />}
        {step.model && <Model id={step.model} />}
        {beside}
      </div>
      <ReadAloud texts={[step.name, task?.sentence ?? '', step.why, ...score.notices, ...score.cautions]} />
    </section>
  )
}

/** often says how often the phrase comes in the step. */
const often = (times: number) => (times > 1 ? `${times} times in a row` : '')

/** taken says how often the step is to be recorded. */
const taken = (times: number) => (times > 1 ? `record it ${times} times` : '')

/** spoken is the music in words. */
const spoken = (task: Schemas['Task']) =>
  `${task.course.map((c) => c.says).join(', ')}${task.times > 1 ? `, ${task.times} times` : ''}`

/** Cautions stand on the page, never behind a button. */
export function Cautions({ texts }: { texts: string[] }) {
  if (texts.length === 0) return null
  return (
    <ul className="mt-3 space-y-1 border-l-4 border-nearly pl-3 text-sm" aria-label="Take care">
      {texts.map((c) => (
        <li key={c}>{c}</li>
      ))}
    </ul>
  )
}

/** onceEach keeps the first of each written note. */
function onceEach(targets: Schemas['Segment'][]): Schemas['Segment'][] {
  return targets.filter((t, n) => targets.findIndex((u) => u.written_name === t.written_name) === n)
}

/** Fingerings are the step's notes in a row that is pushed along: each by its name, and how it is fingered. */
function Fingerings({ targets }: { targets: Schemas['Segment'][] }) {
  const notes = onceEach(targets).filter((t) => t.fingering || t.hard)
  if (notes.length === 0) return null
  return (
    // A row that is pushed along is reached by the keyboard, too.
    <ul
      aria-label="The notes and their fingers"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: see above
      tabIndex={0}
      className="relative mt-4 flex gap-2 overflow-x-auto pb-1"
    >
      {notes.map((t) => (
        <FingeringCard key={t.start_beat} target={t} />
      ))}
    </ul>
  )
}

/** FingeringCard is one note: by name, what is pressed, and what moves from the note before. */
function FingeringCard({ target }: { target: Schemas['Segment'] }) {
  const moves = target.changes?.length ?? 0
  return (
    <li className="min-w-28 shrink-0 rounded-md border border-rule bg-sheet p-2 text-center">
      <p className="font-serif text-lg">{target.called ?? target.written_name}</p>
      {target.phase === 'play' && target.fingering && (
        <div className="mt-1 flex justify-center">
          <FingeringDiagram fingering={target.fingering} height={112} changes={target.changes ?? []} />
        </div>
      )}
      {target.phase === 'play' && <p className="text-sm">{target.fingering?.text ?? 'see your fingering chart'}</p>}
      {target.phase === 'buzz' && <p className="text-sm">with the lips</p>}
      {moves > 0 && <p className="text-sm text-warm">{moves === 1 ? 'one moves' : `${moves} move`}</p>}
      <p className="text-sm text-soft">
        {target.fingering?.alternates?.length ? `or ${target.fingering.alternates.join(', ')}` : ''}
        {target.new && 'New this week. '}
        {target.hard && 'Hard: trying counts.'}
      </p>
    </li>
  )
}
