import type { Schemas } from '../../api/client'
import type { Recording } from '../../ear/recorder'
import { FingeringDiagram } from '../../notation/FingeringDiagram'
import { useCue } from './cue'
import { loudness } from './Loudness'
import type { ShownStep } from './overlay'
import { useLive, useMoved } from './useLive'

type Props = { step: ShownStep; recording: Recording }

/** Guide is a kind's own way of leading, beside the beat: the fingers that move now, the swell's shape, the line against one's best, the bursts. */
export function Guide({ step, recording }: Props) {
  const { score, timeline } = step
  const cue = timeline.cues[useCue(recording, timeline)]
  const segment = cue && score.segments[cue.segment]
  if (!segment) return null
  if (score.growing && segment.sounds)
    return <GrowingLine recording={recording} from={cue.from_s} best={step.best_s ?? 0} />
  if (segment.bursts) return <Bursts recording={recording} count={segment.bursts} cue={cue} />
  if (score.segments.some((s) => s.dynamic_to)) return <SwellShape step={step} recording={recording} />
  const lit = segment.fingering ? segment : upcoming(score.segments, cue.segment)
  if (!lit?.fingering) return null
  return (
    <figure>
      <div className={lit === segment ? '' : 'opacity-60'}>
        <FingeringDiagram fingering={lit.fingering} changes={lit.changes ?? []} height={132} />
      </div>
      <figcaption className="mt-1 text-sm">
        {lit === segment ? lit.called : `next ${lit.called}`}
        <span className="block text-soft">{lit.fingering.text}</span>
      </figcaption>
    </figure>
  )
}

/** A stretch of the score in which one thing is done. */
type Segment = Schemas['Segment']
type Cue = Schemas['Timeline']['cues'][number]

/** upcoming is the next note with a fingering, to get the fingers ready for. */
function upcoming(segments: Segment[], from: number): Segment | undefined {
  return segments.slice(from + 1).find((s) => s.fingering)
}

const frame = 0.01 // seconds from one moment heard to the next

/** sounding is how long a pitch has been heard since a moment of the score. */
function sounding(recording: Recording, from: number): number {
  const first = Math.max(0, Math.floor((from - recording.heardFrom()) / frame))
  let voiced = 0
  for (let n = first; n < recording.heard.length; n++) if ((recording.heard[n]?.pitch ?? 0) > 0) voiced++
  return voiced * frame
}

const firstGoal = 8 // seconds in view before there is a best

/** Seconds between two drawings of the line. */
const lineStep = 0.1

/** GrowingLine grows while the note sounds, towards one's own best. */
function GrowingLine({ recording, from, best }: { recording: Recording; from: number; best: number }) {
  const seconds = lineStep * useLive(recording, (r) => Math.floor(sounding(r, from) / lineStep))
  const room = Math.max(seconds, best, firstGoal) * 1.1
  return (
    <figure className="w-28 text-left">
      <svg viewBox="0 0 100 140" className="w-full" role="img" aria-label={`${seconds.toFixed(0)} seconds`}>
        <line x1="30" x2="30" y1="4" y2="136" stroke="var(--band)" strokeWidth="14" />
        <line x1="30" x2="30" y1={136 - (132 * seconds) / room} y2="136" stroke="var(--warm)" strokeWidth="14" />
        {best > 0 && (
          <>
            <line
              x1="14"
              x2="60"
              y1={136 - (132 * best) / room}
              y2={136 - (132 * best) / room}
              stroke="currentColor"
              strokeWidth="2"
            />
            <text x="50" y={128 - (132 * best) / room} fontSize="13" fill="currentColor">
              best
            </text>
          </>
        )}
      </svg>
      <figcaption className="font-serif text-lg tabular-nums">
        {seconds.toFixed(0)} s{seconds > best && best > 0 && <span className="text-sm"> your longest</span>}
      </figcaption>
    </figure>
  )
}

/** Bursts are the puffs of air to come, one mark each, filled as they pass. */
function Bursts({ recording, count, cue }: { recording: Recording; count: number; cue: Cue }) {
  const done = useLive(recording, (r) => Math.floor((count * (r.position() - cue.from_s)) / (cue.to_s - cue.from_s)))
  return (
    <div
      className="flex max-w-40 flex-wrap gap-2"
      role="img"
      aria-label={`burst ${Math.min(count, done + 1)} of ${count}`}
    >
      {Array.from({ length: count }, (_, n) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: the marks are their places
          key={n}
          className={`drawn h-6 w-4 rounded-full border-2 border-edge ${n < done ? 'bg-edge' : n === done ? 'border-warm bg-warm' : ''}`}
        />
      ))}
    </div>
  )
}

/** SwellShape is the loudness to follow, drawn as a lens with a line where one is now. */
function SwellShape({ step, recording }: { step: ShownStep; recording: Recording }) {
  const { cues } = step.timeline
  const points = cues.flatMap((c) => {
    const s = step.score.segments[c.segment]
    if (!s?.dynamic) return []
    return [
      { t: c.from_s, v: loudness[s.dynamic].share },
      { t: c.to_s, v: loudness[s.dynamic_to ?? s.dynamic].share },
    ]
  })
  const from = points[0]?.t ?? 0
  const to = points.at(-1)?.t ?? 1
  const x = (t: number) => (160 * (t - from)) / (to - from)
  const line = useMoved<SVGLineElement>(recording, (el, r) => {
    const at = r.position()
    el.style.visibility = at >= from && at <= to ? 'visible' : 'hidden'
    el.style.transform = `translateX(${x(at).toFixed(1)}px)`
  })
  const edge = (side: number) => points.map((p) => `${x(p.t).toFixed(1)} ${(50 + side * 44 * p.v).toFixed(1)}`)
  return (
    <svg
      viewBox="0 0 160 100"
      className="hidden w-44 sm:block"
      role="img"
      aria-label="The swell: grow to the middle, fade to the end"
    >
      <path d={`M${edge(-1).join('L')}L${edge(1).reverse().join('L')}Z`} fill="var(--band)" stroke="var(--edge)" />
      <line ref={line} x1="0" x2="0" y1="0" y2="100" stroke="var(--warm)" strokeWidth="3" visibility="hidden" />
    </svg>
  )
}
