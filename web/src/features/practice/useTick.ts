import { useMutation } from '@tanstack/react-query'
import { newId } from '../../api/ids'
import { useOutbox } from '../../device/useOutbox'
import type { ShownStep } from './overlay'

/** useTick keeps which items of a step are done: on this device at once, at the server when it can be told. */
export function useTick(step: ShownStep) {
  const outbox = useOutbox()
  return useMutation({
    mutationFn: (done: boolean[]) =>
      outbox.keepMessage(newId(), {
        method: 'PUT',
        path: `/practice/steps/${step.id}/ticks`,
        body: { version: step.version, done },
        step: step.id,
        ticked: done,
      }),
  })
}
