import type { Schemas } from '../api/client'

/**
 * What the core measured, to be drawn: times in seconds, pitch in cents from the note
 * that was asked for.
 */
export type RibbonData = Schemas['Ribbon']
/** One line of ink of one weight. */
type Stroke = Schemas['Stroke']

/** Box is a drawing's size in pixels. Jumps have a lane above and below. */
export type Box = { width: number; height: number; lane: number }

/** Places turns times and cents into pixels. */
export type Places = { x: (seconds: number) => number; y: (cents: number) => number; thickness: number }

const least = 1.2 // px: the thinnest line that still prints

/** placesOf lays a ribbon out in a box. Full loudness is half the band thick. */
export function placesOf(r: RibbonData, box: Box): Places {
  const inner = box.height - 2 * box.lane
  const clamp = (v: number) => Math.max(-r.range_cents, Math.min(r.range_cents, v))
  const band = r.tracks[0]?.band_cents ?? r.range_cents / 3
  return {
    x: (s) => ((s - r.from_s) / (r.to_s - r.from_s)) * box.width,
    y: (c) => box.lane + inner / 2 - (clamp(c) / r.range_cents) * (inner / 2),
    thickness: Math.max(2 * least, (band / r.range_cents) * (inner / 2)),
  }
}

/** tracksOf outlines the targets, all of them in three paths: the allowed bands, their middles, and where each begins. */
export function tracksOf(tracks: RibbonData['tracks'], at: Places): { band: string; middle: string; starts: string } {
  const out = { band: '', middle: '', starts: '' }
  for (const t of tracks) {
    const [from, to] = [round(at.x(t.from_s)), round(at.x(t.to_s))]
    const y = (bands: number) => round(at.y(bands * t.band_cents))
    out.band += `M${from} ${y(1)}H${to}V${y(-1)}H${from}Z`
    out.middle += `M${from} ${y(0)}H${to}`
    out.starts += `M${from} ${y(1.35)}V${y(-1.35)}`
  }
  return out
}

/** Segment is a piece of a stroke drawn with one ink. */
export type Segment = { path: string; ink: number }

/** Shades of ink from a hissing tone to a clear one; each shade is one path for the browser to draw. */
const inkSteps = 5

/** segmentsOf outlines a stroke, cut where its ink changes. */
export function segmentsOf(s: Stroke, at: Places): Segment[] {
  const last = s.cents.length - 1
  const points = s.cents.map((c, n) => ({
    x: at.x(n === last ? s.to_s : s.from_s + n * s.step_s),
    y: at.y(c),
    half: Math.max(least, ((s.weight[n] ?? 0) / 100) * at.thickness) / 2,
    ink: Math.round(((s.ink[n] ?? 0) / 100) * inkSteps) / inkSteps,
  }))
  const out: Segment[] = []
  for (let from = 0; from < last; ) {
    const ink = points[from]?.ink ?? 1
    let to = from + 1
    while (to < last && points[to]?.ink === ink) to++
    const run = points.slice(from, to + 1)
    const upper = run.map((p) => `${round(p.x)} ${round(p.y - p.half)}`)
    const lower = run.map((p) => `${round(p.x)} ${round(p.y + p.half)}`).reverse()
    out.push({ path: `M${upper.join('L')}L${lower.join('L')}Z`, ink })
    from = to
  }
  return out
}

/** inksOf outlines strokes with one path for each ink: a small drawing has few. */
export function inksOf(strokes: Stroke[], at: Places): Segment[] {
  const paths = new Map<number, string>()
  for (const stroke of strokes) {
    for (const { ink, path } of segmentsOf(stroke, at)) paths.set(ink, (paths.get(ink) ?? '') + path)
  }
  return Array.from(paths, ([ink, path]) => ({ ink, path }))
}

/** centreLine is the pitch itself, a fine line inside the ink. */
export function centreLine(s: Stroke, at: Places): string {
  const last = s.cents.length - 1
  return `M${s.cents.map((c, n) => `${round(at.x(n === last ? s.to_s : s.from_s + n * s.step_s))} ${round(at.y(c))}`).join('L')}`
}

/** widened keeps a gap visible when it is less than two pixels wide. */
export function widened(from: number, to: number, leastWidth = 2): { x: number; width: number } {
  const width = Math.max(leastWidth, to - from)
  return { x: (from + to - width) / 2, width }
}

/**
 * round keeps a hundredth of a pixel: the rest of the digits would make the paths of a
 * page of thirty ribbons several times as long, and look the same.
 */
function round(v: number): number {
  return Math.round(v * 100) / 100
}
