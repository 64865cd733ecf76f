import { useEffect, useRef } from 'react'
import type { Schemas } from '../../api/client'
import type { Moment } from '../../ear/core'
import type { Recording } from '../../ear/recorder'
import { loudness } from './Loudness'
import type { ShownStep } from './overlay'
import { everyFrame } from './useLive'

type Cue = Schemas['Timeline']['cues'][number]
type Segment = Schemas['Segment']

/** The recording is read once a frame; the step says which notes are aimed at. */
type Props = { recording: Recording; step: ShownStep }

const seconds = 6 // in view
const ahead = 0.25 // share of the strip kept for what comes
const frame = 0.01 // seconds from one moment heard to the next
const quietest = 45 // dB below full scale that is still drawn

/** LiveRibbon draws what the ear hears while it is played: the note's track, and ink on it. */
export function LiveRibbon({ recording, step }: Props) {
  const room = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const canvas = room.current
    const pen = canvas?.getContext('2d')
    if (!canvas || !pen) return
    // Asked for once: to ask between two frames is to have the page laid out for the answer.
    const { clientWidth: width, clientHeight: height } = canvas
    const scale = window.devicePixelRatio || 1
    canvas.width = width * scale
    canvas.height = height * scale
    pen.scale(scale, scale)
    const ink = {
      band: colour(canvas, '--band'),
      line: colour(canvas, '--edge'),
      soft: colour(canvas, '--soft'),
      warm: colour(canvas, '--warm'),
      tone: colour(canvas, '--ink'),
    }
    const roll = new Roll(width, height, scale, ink.tone)
    return everyFrame(recording, () => paint(pen, width, height, recording, step, ink, roll))
  }, [recording, step])
  return <canvas ref={room} aria-hidden className="drawn h-28 w-full max-w-lg border-y border-rule bg-sheet text-ink" />
}

/** colour is a colour of the page as it is now, light or dark: a canvas does not know the names. */
function colour(canvas: HTMLCanvasElement, name: string): string {
  canvas.style.color = `var(${name})`
  const found = getComputedStyle(canvas).color
  canvas.style.color = ''
  return found
}

/** Colours read out of the page's own style once, for a canvas has none. */
type Ink = { band: string; line: string; tone: string; soft: string; warm: string }

/** What a moment of drawing needs: the pen, the strip's size in pixels, and where a second and a pitch lie on it. */
type Strip = {
  pen: CanvasRenderingContext2D
  width: number
  height: number
  ink: Ink
  x: (at: number) => number
  y: (cents: number) => number
}

/**
 * paint draws the seconds around now: the notes asked for as bands of the shape they are to
 * have, what is heard as a line through them.
 */
function paint(
  pen: CanvasRenderingContext2D,
  width: number,
  height: number,
  recording: Recording,
  step: ShownStep,
  ink: Ink,
  roll: Roll,
) {
  const now = recording.position()
  const from = now - seconds * (1 - ahead)
  const limit = step.score.limits.centre_cents
  const strip: Strip = {
    pen,
    width,
    height,
    ink,
    x: (at) => ((at - from) / seconds) * width,
    y: (cents) => height / 2 - (Math.max(-3, Math.min(3, cents / limit)) * height) / 6,
  }
  pen.clearRect(0, 0, width, height)
  for (const cue of step.timeline.cues) {
    const segment = step.score.segments[cue.segment]
    if (segment?.target_midi && cue.to_s > from && cue.from_s < from + seconds) asked(strip, cue, segment, limit)
  }
  const slides = step.score.segments.some((s) => s.goal)
  roll.put(recording, (h, at) => strip.y(h.cents - (slides ? slid(step, at) : 0)))
  roll.lay(pen, from)
  pen.fillStyle = ink.tone
  pen.fillRect(strip.x(now), 0, 1, height)
}

/** slid is how far a slide is to have come by a moment, in cents: its line stays in the middle of the strip. */
function slid(step: ShownStep, at: number): number {
  const cue = step.timeline.cues.find((c) => at >= c.from_s && at < c.to_s)
  const segment = cue && step.score.segments[cue.segment]
  if (!cue || !segment?.glide_to_midi || !segment.target_midi) return 0
  const share = (at - cue.from_s) / (cue.to_s - cue.from_s)
  return 100 * share * (segment.glide_to_midi - segment.target_midi)
}

/** asked draws one note before it comes: its band, its name, its goal, how loud it is to be, and its pushes of air. */
function asked({ pen, height, ink, x, y }: Strip, cue: Cue, segment: Segment, limit: number) {
  const [left, right] = [x(cue.from_s), x(cue.to_s)]
  pen.fillStyle = ink.band
  pen.fillRect(left, y(limit), right - left, y(-limit) - y(limit))
  pen.fillStyle = ink.line
  pen.fillRect(left, y(0), right - left, 1)
  pen.fillRect(left, y(limit), 2, y(-limit) - y(limit)) // where it begins
  pen.font = '15px "Source Serif 4 Variable", serif'
  pen.fillStyle = ink.soft
  pen.fillText(segment.called ?? '', left + 6, 16)
  if (segment.goal) {
    pen.textAlign = 'right'
    pen.fillText(
      `${(segment.glide_to_midi ?? 0) > (segment.target_midi ?? 0) ? '↗' : '↘'} ${segment.goal.called}`,
      right - 6,
      16,
    )
    pen.textAlign = 'left'
  }
  lane(pen, height, ink, [left, right], segment)
}

const laneHeight = 16 // pixels at the foot of the strip, for loudness and pushes

/** lane draws at the foot how loud a note is to be, and its pushes of air. */
function lane(
  pen: CanvasRenderingContext2D,
  height: number,
  ink: Ink,
  [left, right]: [number, number],
  segment: Segment,
) {
  const middle = height - laneHeight / 2
  pen.fillStyle = ink.warm
  if (segment.dynamic) {
    const half = (d: typeof segment.dynamic) => (loudness[d ?? 'mf'].share * laneHeight) / 2
    const [a, b] = [half(segment.dynamic), half(segment.dynamic_to ?? segment.dynamic)]
    pen.beginPath()
    pen.moveTo(left, middle - a)
    pen.lineTo(right, middle - b)
    pen.lineTo(right, middle + b)
    pen.lineTo(left, middle + a)
    pen.fill()
  }
  const pushes = (segment.pulses ?? 0) * segment.beats
  for (let n = 0; n < pushes; n++) {
    pen.beginPath()
    pen.arc(left + ((n + 0.5) / pushes) * (right - left), middle, 4, 0, 2 * Math.PI)
    pen.fill()
  }
}

/**
 * Roll is what was played, on sheets as long as the strip. A moment's ink is put down once, and
 * a frame only lays the sheets out: drawn anew sixty times a second it was the most of what a
 * slow phone had to do.
 */
class Roll {
  private readonly width: number
  private readonly height: number
  private readonly scale: number
  private readonly tone: string
  /** by their number: the first begins with the first click */
  private readonly sheets = new Map<number, CanvasRenderingContext2D>()
  private down = 0

  /** The strip's size in pixels of the page, how many of the screen one is, and the ink's colour. */
  constructor(width: number, height: number, scale: number, tone: string) {
    this.width = width
    this.height = height
    this.scale = scale
    this.tone = tone
  }

  /** put puts down what was heard since. */
  put(recording: Recording, y: (h: Moment, at: number) => number) {
    const start = recording.heardFrom()
    const wide = (this.width / seconds) * frame
    for (; this.down < recording.heard.length; this.down++) {
      const h = recording.heard[this.down]
      const at = start + this.down * frame
      if (!h) continue
      const first = Math.floor(at / seconds)
      // What lies over a sheet's edge is on the next one too, or the edge would be seen.
      for (let number = first; number <= (at + 2 * frame) / seconds; number++) {
        const sheet = this.sheet(number)
        if (sheet) dab(sheet, (at / seconds - number) * this.width, y(h, at), wide, this.height, h)
      }
    }
  }

  /** lay lays out what is in view from a moment on, and forgets what was before it. */
  lay(pen: CanvasRenderingContext2D, from: number) {
    const first = Math.floor(from / seconds)
    for (const [n, { canvas }] of this.sheets) {
      if (n < first) this.sheets.delete(n)
      // On whole pixels, or the ink would blur.
      const x = Math.round((n - from / seconds) * this.width * this.scale) / this.scale
      if (n >= first) pen.drawImage(canvas, x, 0, this.width, this.height)
    }
  }

  /** sheet is one by its number; undefined where a browser has no room for another. */
  private sheet(n: number): CanvasRenderingContext2D | undefined {
    const known = this.sheets.get(n)
    if (known) return known
    const canvas = document.createElement('canvas')
    canvas.width = this.width * this.scale
    canvas.height = this.height * this.scale
    const pen = canvas.getContext('2d')
    if (!pen) return undefined
    pen.scale(this.scale, this.scale)
    pen.fillStyle = this.tone
    this.sheets.set(n, pen)
    return pen
  }
}

/** dab puts a moment's ink down: thick where loud, pale where breathy. */
function dab(pen: CanvasRenderingContext2D, x: number, y: number, width: number, height: number, h: Moment) {
  if (h.pitch === 0 || h.cents === 0) return
  const loud = Math.max(0.08, Math.min(1, 1 + (h.level + 15) / quietest))
  const thick = (loud * height) / 6
  pen.globalAlpha = 0.3 + 0.7 * h.confidence ** 4
  pen.fillRect(x, y - thick / 2, width + 0.5, thick)
  pen.globalAlpha = 1
}
