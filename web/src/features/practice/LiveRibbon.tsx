import { useEffect, useRef } from 'react'
import type { Moment } from '../../ear/core'
import type { Recording } from '../../ear/recorder'
import type { ShownStep } from './overlay'

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
    const scale = window.devicePixelRatio || 1
    canvas.width = canvas.clientWidth * scale
    canvas.height = canvas.clientHeight * scale
    pen.scale(scale, scale)
    const look = getComputedStyle(canvas)
    const ink = { band: look.getPropertyValue('--band'), line: look.getPropertyValue('--edge'), tone: look.color }
    let next = requestAnimationFrame(function draw() {
      canvas.dataset.behindMs = (1000 * recording.behind()).toFixed(0) // how well it keeps up, for those who look
      paint(pen, canvas.clientWidth, canvas.clientHeight, recording, step, ink)
      next = requestAnimationFrame(draw)
    })
    return () => cancelAnimationFrame(next)
  }, [recording, step])
  return <canvas ref={room} aria-hidden className="h-28 w-full max-w-lg border-y border-rule bg-sheet text-ink" />
}

/** Colours read out of the page's own style once, for a canvas has none. */
type Ink = { band: string; line: string; tone: string }

/**
 * paint draws the seconds around now: the notes asked for as bands, what is heard as a
 * line through them.
 */
function paint(
  pen: CanvasRenderingContext2D,
  width: number,
  height: number,
  recording: Recording,
  step: ShownStep,
  ink: Ink,
) {
  const now = recording.position()
  const from = now - seconds * (1 - ahead)
  const x = (at: number) => ((at - from) / seconds) * width
  const limit = step.score.limits.centre_cents
  const y = (cents: number) => height / 2 - (Math.max(-3, Math.min(3, cents / limit)) * height) / 6
  pen.clearRect(0, 0, width, height)
  for (const cue of step.timeline.cues) {
    if (!step.score.segments[cue.segment]?.target_midi) continue
    pen.fillStyle = ink.band
    pen.fillRect(x(cue.from_s), y(limit), x(cue.to_s) - x(cue.from_s), y(-limit) - y(limit))
    pen.fillStyle = ink.line
    pen.fillRect(x(cue.from_s), y(0), x(cue.to_s) - x(cue.from_s), 1)
  }
  pen.fillStyle = ink.tone
  const start = recording.heardFrom()
  const first = Math.max(0, Math.floor((from - start) / frame))
  for (let n = first; n < recording.heard.length; n++) {
    const h = recording.heard[n]
    if (h) dab(pen, x(start + n * frame), y(h.cents), (width / seconds) * frame, height, h)
  }
  pen.fillRect(x(now), 0, 1, height)
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
