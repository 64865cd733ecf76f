import { type ReactNode, useId } from 'react'
import { type Box, centreLine, inksOf, placesOf, type RibbonData, tracksOf, widened } from './geometry'

/**
 * width and height are pixels of the whole drawing. children draw over it, and are given
 * the place across for a time in seconds of the take.
 */
type Props = {
  ribbon: RibbonData
  width: number
  height: number
  /** large drawings have beats, note names and labelled jumps */
  large?: boolean
  /** plain drawings call notes as their player says them */
  plain?: boolean
  /** what stands around it says it already */
  silent?: boolean
  children?: (x: (seconds: number) => number) => ReactNode
}

/**
 * Ribbon draws a take as a strip of ink: along is time, up and down is pitch
 * against the target, thickness is loudness, solid ink is a clear tone. All of
 * it is worked out by the server; this only scales it.
 */
export function Ribbon({ ribbon, width, height, large = false, plain = false, silent, children }: Props) {
  const title = useId()
  const box: Box = { width, height, lane: large ? 26 : 3 }
  const at = placesOf(ribbon, box)
  return (
    // biome-ignore lint/a11y/noSvgWithoutTitle: it has one, unless its words stand around it
    <svg
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-hidden={silent}
      aria-labelledby={silent ? undefined : title}
      className="block h-auto w-full text-ink"
      style={{ aspectRatio: `${width} / ${height}` }}
    >
      {!silent && <title id={title}>{ribbon.text}</title>}
      <Tracks ribbon={ribbon} box={box} large={large} plain={plain} />
      {inksOf(ribbon.strokes, at).map((p) => (
        <path key={p.ink} d={p.path} fill="currentColor" opacity={0.25 + 0.75 * p.ink} />
      ))}
      {large &&
        ribbon.strokes.map((s) => (
          <path
            key={s.from_s}
            d={centreLine(s, at)}
            fill="none"
            stroke="var(--paper)"
            strokeWidth="1.2"
            opacity={0.75}
          />
        ))}
      {ribbon.gaps.map((g) => {
        const hole = widened(at.x(g.from_s), at.x(g.to_s))
        return (
          <g key={g.from_s}>
            <rect {...hole} y={at.y(0) - at.thickness * 1.5} height={at.thickness * 3} fill="var(--paper)" />
            {large && (
              <path
                d={`M${hole.x} ${at.y(0)}h${hole.width}`}
                stroke="var(--not-yet)"
                strokeDasharray="2 3"
                strokeWidth="1.5"
              />
            )}
          </g>
        )
      })}
      {large && <Became ribbon={ribbon} box={box} large />}
      <Jumps ribbon={ribbon} box={box} large={large} />
      {children?.(at.x)}
    </svg>
  )
}

/** labelWidth is room for the words of a beat. */
const labelWidth = 40
/** Every beat has a tick, every fourth its seconds: more numbers would run together on a phone. */
const beatsALabel = 4

/** letterWidth is about a letter's, so that no words run into the next note. */
const letterWidth = 6.4

/** What each layer of the drawing needs to place itself. */
type Part = { ribbon: RibbonData; box: Box; large: boolean }

/**
 * Tracks is the line that was meant, and the band around it within which nobody would
 * complain.
 */
function Tracks({ ribbon, box, large, plain }: Part & { plain: boolean }) {
  const at = placesOf(ribbon, box)
  const tracks = tracksOf(ribbon.tracks, at)
  return (
    <>
      <path d={tracks.band} fill="var(--band)" />
      <path d={tracks.middle} stroke="var(--edge)" strokeWidth="0.6" />
      <path d={tracks.starts} stroke="var(--warm)" strokeWidth={large ? 2 : 1.4} />
      {large &&
        ribbon.tracks.map((t) => (
          <text
            key={t.from_s}
            x={at.x(t.from_s) + 6}
            y={at.y(ribbon.range_cents) + 14}
            className="fill-soft font-serif text-[15px]"
          >
            {plain ? (t.called ?? t.written) : t.written}
          </text>
        ))}
      {large &&
        ribbon.beats_s.map((b, n) => (
          <g key={b}>
            <path
              d={`M${at.x(b)} ${box.height - box.lane}v${n % beatsALabel === 0 ? 8 : 5}`}
              stroke="var(--edge)"
              strokeWidth="1"
            />
            {!plain && n % beatsALabel === 0 && at.x(b) + labelWidth < box.width && (
              <text x={at.x(b) + 3} y={box.height - box.lane + 14} className="fill-soft text-[11px]">
                {b.toFixed(1)} s
              </text>
            )}
          </g>
        ))}
    </>
  )
}

/** Became says at each note that did not come what came in its place: the account of the take. */
function Became({ ribbon, box }: Part) {
  const at = placesOf(ribbon, box)
  return ribbon.tracks.map((t) => {
    const x = at.x(t.from_s)
    const wide = at.x(t.to_s) - x
    // What is drawn apart has its words there.
    if (!t.became || ribbon.jumps.some((j) => j.label === t.became && j.from_s >= t.from_s - 0.2)) return null
    if (wide < t.became.length * letterWidth) return null
    return (
      <text key={t.from_s} x={x + 6} y={at.y(0) + 5} className="fill-ink font-serif text-[14px]">
        {t.became}
      </text>
    )
  })
}

/**
 * Jumps shows where the pitch left the note, in a lane of its own above or below: the
 * scale of the ribbon is too small for a jump of an octave.
 */
function Jumps({ ribbon, box, large }: Part) {
  const at = placesOf(ribbon, box)
  return ribbon.jumps.map((j) => {
    const { x, width } = widened(at.x(j.from_s), at.x(j.to_s), 3)
    const late = x > box.width * 0.6 // its words go before it
    const y = j.above ? box.lane / 2 : box.height - box.lane / 2
    return (
      <g key={j.from_s}>
        <rect x={x} y={y - (large ? 3 : 1.25)} width={width} height={large ? 6 : 2.5} fill="var(--not-yet)" />
        {large && (
          <text
            x={late ? x - 6 : x + width + 6}
            y={y + 5}
            textAnchor={late ? 'end' : 'start'}
            className="fill-ink text-[14px]"
          >
            {j.label}
          </text>
        )}
      </g>
    )
  })
}
