/** The days as one says them, from Monday, as plans count them. */
export const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
/** The same days as calendars write them (RFC 5545, BYDAY). */
export const dayKeys = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
