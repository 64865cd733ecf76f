/** Calendar dates as text, untouched by time zones. */

export const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
export const dayKeys = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
export const schoolDays = dayKeys.slice(0, 5)

/** shifted moves a date by days. */
export function shifted(day: string, by: number): string {
  const at = new Date(`${day}T00:00Z`)
  at.setUTCDate(at.getUTCDate() + by)
  return at.toISOString().slice(0, 10)
}

/** weekdayOf is 0 for a Monday to 6 for a Sunday. */
export function weekdayOf(day: string): number {
  return (new Date(`${day}T00:00Z`).getUTCDay() + 6) % 7
}

/** mondayOf is the first day of a date's week. */
export const mondayOf = (day: string) => shifted(day, -weekdayOf(day))

/** minutes writes seconds as 6:05. */
export function minutes(seconds: number): string {
  const n = Math.round(seconds)
  return `${Math.floor(n / 60)}:${String(n % 60).padStart(2, '0')}`
}
