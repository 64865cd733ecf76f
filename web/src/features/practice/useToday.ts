import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { itemsOf, useOutbox, useOutboxState } from '../../device/useOutbox'
import { type ShownStep, shown, withDevice } from './overlay'
import { keepWeekAhead, type Practice, practiceQuery } from './queries'

/** Today is the practice of today: the server's answer, and what is still on this device. */
export type Today = { practice?: Practice; steps: ShownStep[]; error: unknown }

/**
 * useToday is the server's day with the device's takes laid over it, and lets go of what
 * the server shows by now.
 */
export function useToday(): Today {
  const { data: practice, error, dataUpdatedAt } = useQuery(practiceQuery)
  const outbox = useOutbox()
  const items = useOutboxState(itemsOf)
  const queries = useQueryClient()
  const settled = items.filter((i) => i.state !== 'waiting').length
  // What went up changes what the server answers.
  // biome-ignore lint/correctness/useExhaustiveDependencies: they are what changed
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: practiceQuery.queryKey })
  }, [queries, settled, items.length])
  useEffect(() => {
    const done = practice ? shown(practice, items, dataUpdatedAt) : []
    if (done.length > 0) void outbox.throwAway(done)
  }, [practice, items, outbox, dataUpdatedAt])
  const player = practice?.player_id
  const day = practice?.day
  useEffect(() => {
    if (player && day) void keepWeekAhead().catch(() => {}) // asked for again with the next answer
  }, [player, day])
  const steps = useMemo(() => (practice ? withDevice(practice, items) : []), [practice, items])
  return { ...(practice && { practice }), steps, error: practice ? undefined : error }
}
