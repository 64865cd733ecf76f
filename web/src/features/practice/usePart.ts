import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { part as ask } from '../../ear/ask'
import type { ShownStep } from './overlay'

/** Part is what a player takes out of a step to work on: some of its notes, or its fingers alone. */
export type Part = { label: string; notes?: number[]; silent?: boolean }

/** usePart narrows a step to a part of it, on this device; nothing of a part is handed in. */
export function usePart(whole: ShownStep) {
  const [part, setPart] = useState<Part>()
  const { data } = useQuery({
    queryKey: ['part', whole.id, whole.version, whole.score.tempo_bpm, whole.score.rung ?? 0, whole.takes.length, part],
    queryFn: () => ask(whole.score, { notes: part?.notes ?? [], silent: part?.silent ?? false }),
    enabled: part !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  })
  if (!part || !data) return { step: whole, part: undefined, choose: setPart }
  const { ladder: _, best_s: __, ...rest } = whole
  return { step: { ...rest, ...data } as ShownStep, part, choose: setPart }
}
