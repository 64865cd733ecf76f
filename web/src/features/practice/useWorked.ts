import { useQuery } from '@tanstack/react-query'
import { work } from '../../ear/ask'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'

/**
 * useWorked works a step out at the player's tempo, rung, best and turn, on this
 * device. As long as nothing differs from what the server worked out, that stands. Until
 * another rung is written out, turning says so: a take then would be of the rung before.
 */
export function useWorked(practice: Practice, step: ShownStep, tempo: number): { whole: ShownStep; turning: boolean } {
  const rung = step.ladder?.rung ?? 0
  const moved = rung !== 0 && rung !== (step.score.rung ?? 0)
  const grown = (step.best_s ?? 0) > (practice.setting.best_s ?? 0)
  // Fingers and starts that take turns take the next one with every take of the day.
  const repeat = step.score.alternates ? step.takes.length : 0
  const differs = moved || grown || tempo !== 0 || repeat > 0
  const setting = {
    ...practice.setting,
    ...(step.ladder && { rungs: { ...practice.setting.rungs, [step.ladder.key]: rung } }),
    ...(grown && { best_s: step.best_s }),
    ...(repeat > 0 && { repeat }),
  }
  const { data, isError, isPlaceholderData } = useQuery({
    queryKey: ['worked', step.id, step.version, rung, step.best_s ?? 0, tempo, repeat],
    queryFn: () => work(setting, step.step, tempo),
    enabled: differs,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before) => before,
  })
  return {
    whole: differs && data ? { ...step, ...data } : step,
    // A core that cannot write it out keeps nobody from playing.
    turning: moved && !isError && (!data || isPlaceholderData),
  }
}
