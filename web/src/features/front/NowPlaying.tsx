import type { Schemas } from '../../api/client'

/** A step of the day as the room plays it, in beats: nothing here knows seconds. */
type Step = Schemas['FrontStep']
/** beat counts from the step's first click and has fractions, for the ring. */
type Props = { step: Step; beat: number; playing: boolean }

/**
 * What the room does, in one word a child at the back can read. Phases that are not here
 * bring their own text.
 */
const verbs: Record<string, string> = {
  ready: 'Ready',
  breathe: 'Breathe in',
  hold: 'Hold',
  out: 'Out',
  buzz: 'Buzz',
  play: 'Play',
  sing: 'Sing',
  finger: 'Fingers',
  listen: 'Listen',
  free: 'Your tune',
  rest: 'Rest',
}

/** NowPlaying is what the room does on this beat, how long still, and what comes next. */
export function NowPlaying({ step, beat, playing }: Props) {
  const within = beat % step.beats
  const round = Math.floor(beat / step.beats) + 1
  const index = step.cues.findIndex((c) => within < c.from + c.beats)
  const cue = step.cues[index]
  const next = step.cues[index + 1]
  if (step.ticked) {
    return (
      <div className="my-auto min-h-0 overflow-y-auto">
        <ul className="mx-auto max-w-3xl list-disc space-y-1 text-[1.75rem] font-serif">
          {step.items.map((i) => (
            <li key={i}>{i}</li>
          ))}
        </ul>
        <ul className="mt-4 grid gap-x-6 gap-y-2 sm:grid-cols-2 lg:grid-cols-4">
          {step.groups
            .filter((g) => g.items.length > 0)
            .map((g) => (
              <li key={g.names.join()} className="border-t border-rule pt-2">
                <p className="text-sm text-soft">{g.names.join(', ')}</p>
                {g.items.map((i) => (
                  <p key={i} className="font-serif leading-snug">
                    {i}
                  </p>
                ))}
              </li>
            ))}
        </ul>
      </div>
    )
  }
  if (!cue) return <div className="grow" />
  const count = Math.floor(within - cue.from) + 1
  const read = step.groups.some((g) => g.notes.length > 0)
  const sounding = cue.active
  return (
    <div className={`my-auto grid items-center gap-8 ${read ? 'lg:grid-cols-[20rem_minmax(0,1fr)]' : ''}`}>
      <div className="text-center">
        <p className="font-serif text-[2.5rem] leading-tight" aria-live="assertive" data-testid="now">
          {verbs[cue.phase] ?? cue.text}
        </p>
        <div className="relative mx-auto mt-4 size-56">
          <Ring share={Math.min(1, Math.max(0, (within - cue.from) / cue.beats))} />
          <p
            className={`absolute inset-4 flex items-center justify-center rounded-full font-serif text-[6rem] leading-none tabular-nums ${
              sounding ? 'bg-warm text-on-warm' : ''
            }`}
          >
            {playing || beat > 0 ? count : '·'}
          </p>
        </div>
        <p className="mt-3 text-lg text-soft">
          of {cue.beats}
          {step.times > 1 && ` · time ${round} of ${step.times}`}
        </p>
        {next && (
          <p className="mt-2 font-serif text-lg">
            then {(verbs[next.phase] ?? next.text).toLowerCase()}, {next.beats}
          </p>
        )}
      </div>
      {read && <Groups step={step} at={within} />}
    </div>
  )
}

/** Ring fills as the stretch goes by. */
function Ring({ share }: { share: number }) {
  const around = 2 * Math.PI * 47
  return (
    <svg viewBox="0 0 100 100" className="size-full -rotate-90" aria-hidden>
      <circle cx="50" cy="50" r="47" fill="none" stroke="var(--rule)" strokeWidth="3" />
      <circle
        cx="50"
        cy="50"
        r="47"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3"
        strokeDasharray={`${share * around} ${around}`}
      />
    </svg>
  )
}

/** whole is a note as it is read: of a slide, where it ends, too. */
const whole = (n: Step['groups'][number]['notes'][number]) => (n.goal ? `${n.name} → ${n.goal}` : n.name)

/** Groups shows what every group of instruments reads now and next. */
function Groups({ step, at }: { step: Step; at: number }) {
  return (
    <ul className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
      {step.groups.map((g) => {
        const now = g.notes.find((n) => at >= n.from && at < n.from + n.beats)
        const next = g.notes.find((n) => n.from > at)
        return (
          <li key={g.names.join()} className="border-b border-rule pb-2">
            <p className="text-sm text-soft">
              {g.names.join(', ')}
              {g.doing && ` – ${g.doing.charAt(0).toLowerCase()}${g.doing.slice(1)}`}
            </p>
            <p className="flex items-baseline gap-4 font-serif">
              <span className={`text-[2.5rem] leading-tight ${now ? '' : 'text-soft'}`}>
                {now ? whole(now) : 'rest'}
              </span>
              {next && <span className="text-lg text-soft">then {whole(next)}</span>}
            </p>
          </li>
        )
      })}
    </ul>
  )
}
