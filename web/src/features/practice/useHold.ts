import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { type Hold, holdBefore } from '../../ear/ask'
import type { ShownStep } from './overlay'

/** Holding is a rest that is running: how long still, and why. */
export type Holding = { seconds: number; over: boolean; why: string }

/** useHold is the rest that the body needs before a step, counted down. The core says how long, from what was played today. */
export function useHold(step: ShownStep, all: ShownStep[]): Holding | undefined {
  const takes = all.flatMap((s) => s.takes.map((t) => ({ step: s, at: Date.parse(t.played_at) })))
  takes.sort((a, b) => b.at - a.at)
  const latest = takes[0]?.at ?? 0
  const { data } = useQuery({
    queryKey: ['hold', step.id, step.score.rung ?? 0, step.score.tempo_bpm, takes.length, latest],
    queryFn: async () => ({ hold: await ask(step, takes), asked: Date.now() }),
    enabled: takes.length > 0,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before) => before,
  })
  const left = useCountdown(data ? data.asked + 1000 * data.hold.hold_s : 0)
  if (!data || (!data.hold.over && left <= 0)) return undefined
  return { seconds: left, over: data.hold.over, why: data.hold.why }
}

/** ask asks the core with how long ago each take was. Its answer counts from now. */
function ask(step: ShownStep, takes: { step: ShownStep; at: number }[]): Promise<Hold> {
  const now = Date.now()
  return holdBefore(
    step.score,
    takes.map((t) => ({ kind: t.step.score.kind, load: t.step.score.load, ago_s: Math.max(0, (now - t.at) / 1000) })),
  )
}

/** useCountdown counts whole seconds down to a moment. */
function useCountdown(until: number): number {
  const left = () => Math.max(0, Math.ceil((until - Date.now()) / 1000))
  const [seconds, setSeconds] = useState(left)
  // biome-ignore lint/correctness/useExhaustiveDependencies: left reads until
  useEffect(() => {
    setSeconds(left())
    const timer = setInterval(() => {
      setSeconds(left())
      if (left() === 0) clearInterval(timer)
    }, 250)
    return () => clearInterval(timer)
  }, [until])
  return seconds
}
