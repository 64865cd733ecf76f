import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schemas } from '../../api/client'
import { isOffline, keep, kept } from '../../device/kept'

/** A player's day with all that the device needs to go on by itself. */
export type Practice = Schemas['Practice']
/** A step worked out for this player. */
export type PracticeStep = Schemas['PracticeStep']

/**
 * practiceQuery asks twice a second while a take waits for the server's word, and
 * otherwise only when something happened.
 */
export const practiceQuery = queryOptions({
  queryKey: ['practice'],
  queryFn: todaysPractice,
  refetchInterval: (q) => (q.state.data?.steps.some((s) => s.takes.some((t) => t.state === 'waiting')) ? 500 : false), // milliseconds
})

/** todaysPractice asks the server, and keeps its answer; without a network what is kept is put on today's date. */
async function todaysPractice(): Promise<Practice> {
  try {
    const fresh = await answer(api.GET('/practice'))
    void keep('practice', fresh).catch(() => {}) // a full device still shows what it got
    return fresh
  } catch (error) {
    if (!isOffline(error)) throw error
    const last = await kept<Practice>('practice').catch(() => undefined)
    if (!last) throw new TypeError('no network, and nothing is kept on this device yet', { cause: error })
    const today = localDay(new Date())
    return last.day === today ? last : anotherDay(last, today)
  }
}

/** keepWeekAhead asks for the days to come, once the page is quiet. */
export async function keepWeekAhead(): Promise<void> {
  await keep('week', await answer(api.GET('/practice/week')))
}

/** anotherDay is a kept practice on a day that has begun since. */
async function anotherDay(practice: Practice, today: string): Promise<Practice> {
  const week = await kept<Schemas['PracticeWeek']>('week')
  const day = week?.days.find((d) => d.day === today)
  return day ? { ...practice, day: day.day, steps: day.steps } : practice
}

/** localDay is a date as the device's calendar shows it, YYYY-MM-DD. */
export function localDay(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
}
