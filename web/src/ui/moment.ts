/** moment is how people say an instant of the last weeks: its day and the time. */
export const moment = (at: string) =>
  new Date(at).toLocaleString(undefined, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: 'numeric',
    minute: '2-digit',
  })
