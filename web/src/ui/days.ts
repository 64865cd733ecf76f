/** A calendar day as it is written, 2026-11-26, untouched by time zones. */
const at = (day: string) => new Date(`${day}T12:00`)

/** shortDay says a day within a year: "26 Nov". */
export const shortDay = (day: string) => at(day).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })

/** longDay says it in full: "Thursday, 26 November". */
export const longDay = (day: string) =>
  at(day).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' })
