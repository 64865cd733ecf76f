/** A calendar day as it is written, 2026-11-26, untouched by time zones. */
const at = (day: string) => new Date(`${day}T12:00`)

/** shortDay says a day within a year: "26 Nov". */
export const shortDay = (day: string) => at(day).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })

/** longDay says it in full: "Thursday, 26 November". */
export const longDay = (day: string) =>
  at(day).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' })

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
