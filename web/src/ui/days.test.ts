import { describe, expect, it } from 'vitest'
import { clock } from './clock'
import { longDay, mondayOf, shifted, weekdayOf } from './days'

describe('days', () => {
  it('move across months, years and leap days', () => {
    expect(shifted('2026-11-30', 1)).toBe('2026-12-01')
    expect(shifted('2027-01-01', -1)).toBe('2026-12-31')
    expect(shifted('2028-02-28', 1)).toBe('2028-02-29')
    expect(shifted('2026-03-29', 1)).toBe('2026-03-30') // a night with an hour less
    expect(shifted('2026-10-25', -1)).toBe('2026-10-24')
  })
  it('count from Monday', () => {
    expect(weekdayOf('2026-11-23')).toBe(0)
    expect(weekdayOf('2026-11-29')).toBe(6)
    for (const day of ['2026-11-23', '2026-11-26', '2026-11-29']) expect(mondayOf(day)).toBe('2026-11-23')
  })
  it('are said with their weekday', () => {
    expect(longDay('2026-11-26')).toContain('Thursday')
  })
})

it('clocks say minutes and seconds', () => {
  expect([0, 5, 59.6, 60, 464, 3600].map(clock)).toEqual(['0:00', '0:05', '1:00', '1:00', '7:44', '60:00'])
})
