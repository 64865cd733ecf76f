import { describe, expect, it } from 'vitest'
import { centreLine, inksOf, placesOf, type RibbonData, segmentsOf, tracksOf, widened } from './geometry'

const ribbon: RibbonData = {
  from_s: 0,
  to_s: 10,
  range_cents: 75,
  tracks: [{ from_s: 1, to_s: 9, band_cents: 25, written: 'C4', concert: 'B♭3' }],
  strokes: [],
  jumps: [],
  gaps: [],
  beats_s: [],
  text: '',
}
const at = placesOf(ribbon, { width: 100, height: 60, lane: 10 })
const stroke = { from_s: 2, to_s: 4, step_s: 1, cents: [0, -25, 0], weight: [100, 100, 50], ink: [100, 100, 100] }

describe('ribbon geometry', () => {
  it('puts time along and sharp above flat', () => {
    expect(at.x(5)).toBe(50)
    expect(at.y(0)).toBe(30)
    expect(at.y(25)).toBeLessThan(at.y(-25))
  })
  it('keeps what is far off inside the drawing', () => {
    expect(at.y(4000)).toBe(10)
    expect(at.y(-4000)).toBe(50)
  })
  it('draws full loudness half the band thick, so that flat still shows', () => {
    const band = at.y(-25) - at.y(25)
    expect(at.thickness).toBeCloseTo(band / 2)
  })
  it('ends a stroke exactly where the sound ends', () => {
    expect(centreLine(stroke, at)).toBe('M20 30L30 36.67L40 30')
  })
  it('cuts a stroke where the ink changes', () => {
    expect(segmentsOf(stroke, at)).toHaveLength(1)
    expect(segmentsOf({ ...stroke, ink: [100, 20, 20] }, at).map((s) => s.ink)).toEqual([1, 0.2])
  })
  it('draws all of one ink at once', () => {
    const grainy = { ...stroke, from_s: 6, to_s: 8, ink: [100, 20, 20] }
    const inks = inksOf([stroke, grainy], at)
    expect(inks.map((i) => i.ink)).toEqual([1, 0.2])
    expect(inks[0]?.path.match(/M/g)).toHaveLength(2)
    expect(inksOf([], at)).toEqual([])
  })
  it('draws the allowed bands from where each begins', () => {
    const two = tracksOf([...ribbon.tracks, { from_s: 9, to_s: 10, band_cents: 25, written: 'D4', concert: 'C4' }], at)
    expect(two.band).toBe('M10 23.33H90V36.67H10ZM90 23.33H100V36.67H90Z')
    expect(two.middle).toBe('M10 30H90M90 30H100')
    expect(two.starts.match(/M/g)).toHaveLength(2)
    expect(tracksOf([], at)).toEqual({ band: '', middle: '', starts: '' })
  })
  it('keeps short gaps visible', () => {
    expect(widened(10, 10.4)).toEqual({ x: 9.2, width: 2 })
    expect(widened(10, 20)).toEqual({ x: 10, width: 10 })
  })
})
