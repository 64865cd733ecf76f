import { useMutation } from '@tanstack/react-query'
import { newId } from '../../api/ids'
import { useOutbox } from '../../device/useOutbox'
import { blow } from '../../ear/ask'
import type { ShownStep } from './overlay'
import type { Practice } from './queries'

/** useBlow lets a simulated player blow into a simulated meter, on this device; the server is told when it can be. */
export function useBlow(practice: Practice, step: ShownStep) {
  const outbox = useOutbox()
  return useMutation({
    mutationFn: async (standIn: string) => {
      // Another seed each time: a meter that always read the same would teach nothing.
      const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1
      const blown = await blow({
        score: step.score,
        stand_in: standIn,
        seed,
        tips: practice.tips,
        conventions: practice.setting.conventions,
      })
      await outbox.keepMessage(newId(), {
        method: 'PUT',
        path: `/practice/steps/${step.id}/blown`,
        body: { version: step.version, stand_in: standIn, seed },
        step: step.id,
        result: blown.verdict.result,
      })
      return blown
    },
  })
}
