import { useMutation } from '@tanstack/react-query'
import { useOutbox } from '../../device/useOutbox'

/** The number is made here, so that a flag raised without a network counts once. */
type Flag = { id: string; kind: 'hurts' | 'dizzy' | 'tired' | 'question'; words: string; step: string }

/** useRaiseFlag tells the director: on this device first, so that nothing said is lost. */
export function useRaiseFlag() {
  const outbox = useOutbox()
  return useMutation({
    mutationFn: ({ id, ...body }: Flag) =>
      outbox.keepMessage(id, { method: 'PUT', path: `/practice/flags/${id}`, body }),
  })
}
