import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../../api/client'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { type Listening, useChooseAfresh } from './queries'

/**
 * Reasons to hear somebody, as the core names them, in words; the order is the usual
 * weight's.
 */
const reasons: { key: string; says: string }[] = [
  { key: 'pain', says: 'it hurt, or somebody was dizzy' },
  { key: 'question', says: 'a question was asked' },
  { key: 'cant-tell', says: 'the recording could not be judged' },
  { key: 'stuck', says: 'stuck on a rung' },
  { key: 'first-time', says: 'clean for the first time' },
  { key: 'slipping', says: 'was clean before, is not now' },
  { key: 'not-yet', says: 'not yet' },
  { key: 'unheard', says: 'not heard for a week' },
]

/** Weights is why somebody is heard first, in numbers, and the director's own in their place. A take's are added up; what weighs most in the time there is comes first. */
export function Weights({ classId, listening }: { classId: string; listening: Listening }) {
  const [own, setOwn] = useState<Record<string, number>>(listening.weights)
  const choose = useChooseAfresh(classId)
  const save = useMutation({
    mutationFn: () =>
      answer(api.PUT('/classes/{class}/weights', { params: { path: { class: classId } }, body: { weights: own } })),
    onSuccess: () => choose.mutate(listening.minutes),
  })
  return (
    <details className="no-print mt-4">
      <summary className="min-h-9 cursor-pointer text-sm text-soft">Why these come first</summary>
      <form
        className="mt-1 space-y-1 text-sm"
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate()
        }}
      >
        <p className="text-soft">
          The weights of a take’s reasons are added. As much weight as fits into the minutes is chosen, two takes of a
          player at most. 0 leaves a reason out.
        </p>
        {reasons.map((r) => (
          <label key={r.key} className="flex items-center justify-between gap-3">
            {r.says}
            <input
              type="number"
              min={0}
              max={100}
              required
              className="min-h-9 w-16 rounded-md border border-edge bg-sheet px-2 text-right"
              value={Number.isNaN(own[r.key]) ? '' : (own[r.key] ?? 0)}
              onChange={(e) => setOwn({ ...own, [r.key]: e.target.valueAsNumber })}
            />
          </label>
        ))}
        {save.error && <Problem error={save.error} />}
        <Button type="submit" disabled={save.isPending || choose.isPending}>
          Choose by these
        </Button>
      </form>
    </details>
  )
}
