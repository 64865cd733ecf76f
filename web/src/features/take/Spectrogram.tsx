import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import type { Schemas } from '../../api/client'
import { Problem } from '../../ui/Problem'
import { Waiting } from '../../ui/Waiting'
import { spectrogramQuery } from './queries'

/** fromS and toS are the stretch of the take that the ribbon above shows, in seconds. */
type Props = { takeId: string; fromS: number; toS: number }

/** Spectrogram draws a take's sound by time and pitch, to the same time as the ribbon above it. */
export function Spectrogram({ takeId, fromS, toS }: Props) {
  const { data, error } = useQuery(spectrogramQuery(takeId))
  const room = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const pen = room.current?.getContext('2d')
    if (room.current && pen && data) paint(room.current, pen, data, fromS, toS)
  }, [data, fromS, toS])
  if (error) return <Problem error={error} />
  if (!data) return <Waiting what="Working the spectrogram out" />
  const top = (data.bins * data.bin_hz) / 1000
  return (
    <figure className="relative">
      <canvas ref={room} className="h-56 w-full" role="img" aria-label={`Spectrogram up to ${top.toFixed(0)} kHz`} />
      <figcaption className="absolute top-1 left-2 text-xs text-soft">{top.toFixed(0)} kHz</figcaption>
    </figure>
  )
}

/** paint puts a point a pixel: dark where it is strong. */
function paint(
  canvas: HTMLCanvasElement,
  pen: CanvasRenderingContext2D,
  s: Schemas['Spectrogram'],
  fromS: number,
  toS: number,
) {
  const points = Uint8Array.from(atob(s.points), (c) => c.charCodeAt(0))
  const first = Math.max(0, Math.floor(fromS / s.hop_s))
  const last = Math.min(points.length / s.bins, Math.ceil(toS / s.hop_s))
  canvas.width = Math.max(1, Math.ceil((toS - fromS) / s.hop_s))
  canvas.height = s.bins
  const ink = inkOf(canvas)
  const image = pen.createImageData(canvas.width, s.bins)
  const shift = Math.round(Math.max(0, -fromS) / s.hop_s)
  for (let at = first; at < last; at++) {
    for (let bin = 0; bin < s.bins; bin++) {
      const to = 4 * ((s.bins - 1 - bin) * canvas.width + at - first + shift)
      image.data[to] = ink[0]
      image.data[to + 1] = ink[1]
      image.data[to + 2] = ink[2]
      image.data[to + 3] = points[at * s.bins + bin] ?? 0
    }
  }
  pen.putImageData(image, 0, 0)
}

/** inkOf is the page's ink, so that the drawing follows light and dark. */
function inkOf(canvas: HTMLCanvasElement): [number, number, number] {
  const [r = 0, g = 0, b = 0] = (getComputedStyle(canvas).color.match(/[\d.]+/g) ?? []).map(Number)
  return [r, g, b]
}
