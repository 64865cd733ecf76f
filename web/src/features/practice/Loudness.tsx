import type { Schemas } from '../../api/client'

type Segment = Schemas['Segment']
type Dynamic = NonNullable<Segment['dynamic']>

/** How loud each sign is, as a share of the loudest, and how it is said to a child. */
export const loudness: Record<Dynamic, { share: number; says: string }> = {
  pp: { share: 0.12, says: 'very soft' },
  p: { share: 0.28, says: 'soft' },
  mp: { share: 0.45, says: 'not too soft' },
  mf: { share: 0.62, says: 'not too loud' },
  f: { share: 0.82, says: 'loud' },
  ff: { share: 1, says: 'very loud' },
}

/** howLoud says a stretch's loudness in words; nothing where none is asked. */
export function howLoud(s: Segment): string {
  if (!s.dynamic) return ''
  const to = s.dynamic_to ?? s.dynamic
  if (to === s.dynamic) return loudness[s.dynamic].says
  return loudness[to].share > loudness[s.dynamic].share ? 'growing' : 'fading'
}

const width = 640
const height = 44
const edge = 3

/** Loudness draws how soft and how loud a step is to be, as the width of a band along its beats. */
export function Loudness({ score }: { score: Schemas['Score'] }) {
  const loud = score.segments.filter((s) => s.dynamic)
  // One loudness all along is said by a word; a shape of it would be a bar.
  if (!loud.some((s) => (s.dynamic_to ?? s.dynamic) !== s.dynamic)) return null
  const from = loud[0]?.start_beat ?? 0
  const last = loud.at(-1)
  const beats = last ? last.start_beat + last.beats - from : 1
  const x = (beat: number) => ((beat - from) / beats) * width
  const half = (d: Dynamic) => loudness[d].share * (height / 2 - edge)
  return (
    <figure className="mt-3">
      <svg viewBox={`0 0 ${width} ${height}`} className="w-full" role="img" aria-label={spoken(loud)}>
        {loud.map((s) => {
          const a = half(s.dynamic ?? 'mf')
          const b = half(s.dynamic_to ?? s.dynamic ?? 'mf')
          const [l, r, m] = [x(s.start_beat), x(s.start_beat + s.beats), height / 2]
          return (
            <path
              key={s.start_beat}
              d={`M${l} ${m - a}L${r} ${m - b}L${r} ${m + b}L${l} ${m + a}Z`}
              fill="var(--warm)"
              stroke="var(--warm)"
            />
          )
        })}
      </svg>
      <figcaption aria-hidden className="flex justify-between text-sm text-soft">
        {loud.map((s) => (
          <span key={s.start_beat}>{howLoud(s)}</span>
        ))}
      </figcaption>
    </figure>
  )
}

/** spoken is the shape for whoever hears the page. */
const spoken = (loud: Segment[]) => `How loud: ${loud.map((s) => `${s.beats} beats ${howLoud(s)}`).join(', ')}`
